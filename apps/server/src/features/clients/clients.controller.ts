import { Controller, Get, Param } from '@nestjs/common';
import type { ClientLinksShape, ClientShape } from '@zesting/contract';
import { Access, CurrentViewer, type Viewer } from '../../platform/access/access.js';
import { App } from '../../platform/app.js';

@Controller('clients')
export class ClientsController {
  constructor(private readonly app: App) {}

  /** The clients in the viewer's reach, with channels, pillars and contacts. Creators get no contacts. */
  @Get()
  @Access('client.list')
  list(@CurrentViewer() viewer: Viewer): Promise<ClientShape[]> {
    const seesContacts = viewer.role === 'lead' || viewer.role === 'manager';
    return this.app.read<ClientShape>(
      `select c.id, c.code, c.name, c.colour, c.zone, c.usual_time as "usualTime",
         coalesce((select jsonb_agg(jsonb_build_object('id', h.id, 'kind', h.kind, 'name', h.name, 'copyLimit', h.copy_limit, 'ratio', h.ratio) order by h.position)
           from channels h where h.client_id = c.id), '[]') as channels,
         coalesce((select jsonb_agg(jsonb_build_object('id', p.id, 'name', p.name) order by p.position) from pillars p where p.client_id = c.id), '[]') as pillars,
         coalesce((select jsonb_agg(jsonb_build_object('id', x.id, 'name', x.name, 'email', x.email, 'canAsk', x.can_ask, 'canSignOff', x.can_sign_off) order by x.name)
           from contacts x where x.client_id = c.id and $2), '[]') as contacts
       from clients c where c.id = any($1) order by c.name`,
      [viewer.clientIds, seesContacts],
    );
  }

  /** The links to hand out: intake forms, the contacts' rooms, the calendar feed. */
  @Get(':clientId/links')
  @Access('client.links', { client: 'clientId' })
  async links(@Param('clientId') clientId: string): Promise<ClientLinksShape> {
    const forms = await this.app.read<{ id: string; title: string; link_generation: number }>(
      'select id, title, link_generation from intake_forms where client_id = $1 order by title',
      [clientId],
    );
    const contacts = await this.app.read<{ id: string; name: string; link_generation: number }>(
      'select id, name, link_generation from contacts where client_id = $1 order by name',
      [clientId],
    );
    const [client] = await this.app.read<{ feed_generation: number }>('select feed_generation from clients where id = $1', [clientId]);
    return {
      forms: forms.map((form) => ({ title: form.title, address: this.app.links.address('ask', form.id, form.link_generation) })),
      rooms: contacts.map((contact) => ({
        contactId: contact.id,
        name: contact.name,
        address: this.app.links.address('room', contact.id, contact.link_generation),
      })),
      feed: this.app.address(`/feeds/${this.app.links.token('feed', clientId, client?.feed_generation ?? 1)}.ics`),
    };
  }
}
