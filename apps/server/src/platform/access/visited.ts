/** What the pages of visitors are headed with, as `VisitedShape`: columns of `clients c` and `agencies a`. */
export const VISITED = `c.code as "clientCode", c.name as "clientName", c.colour as "clientColour",
  '/api/clients/' || c.id || '/mark?of=' || left(c.brand -> 'logos' ->> 0, 8) as "clientMark", a.name as "agencyName", a.accent as "agencyAccent",
  '/api/agency/mark?of=' || left(a.mark_hash, 12) as "agencyMark"`;
