import { useQuery } from '@tanstack/react-query';
import type { ClientShape, RhythmRuleShape } from '@zesting/contract';
import { Plus } from 'lucide-react';
import { Link } from 'react-router';
import { toast } from 'sonner';
import { tagSetsQuery } from '../../api/library';
import { rhythmQuery } from '../../api/plan';
import { call, wordsOf } from '../../lib/api';
import { count, dayWords, zoneWords } from '../../lib/format';
import { useClients, useSession, useWrite } from '../../lib/queries';
import { rhythmWords } from '../../lib/rhythm-words';
import { useOpened } from '../../lib/use-opened';
import { Button } from '../../ui/button';
import { Empty, Failed, Loading, PageHead } from '../../ui/page';
import { ChooseClient } from '../../parts/choose-client';
import { PlanNav } from '../../parts/plan-nav';
import { NumbersFields } from './numbers-fields';
import { Reach } from './reach';
import { RuleDialog } from './rule-dialog';
import { StockSection } from './stock-section';
import { useNames } from './use-names';

/** A client's rhythm: on which days what goes out where. */
export function RhythmPage() {
  const { client } = useClients();
  if (client) return <ClientRhythm key={client.id} client={client} />;
  return (
    <>
      <PageHead nav={<PlanNav />} title="Rhythm" note="On which days what goes out where." />
      <ChooseClient what="The rhythm of" />
    </>
  );
}

function ClientRhythm({ client }: { client: ClientShape }) {
  const rhythm = useQuery(rhythmQuery(client.id));
  const { zone: here } = useSession();
  const { opened, open, close } = useOpened();
  const { to } = useClients();
  if (rhythm.isError) return <Failed message={wordsOf(rhythm.error)} onRetry={() => void rhythm.refetch()} />;
  if (!rhythm.data) return <Loading />;
  const { rules, zone, ended, todayOn } = rhythm.data;
  const edited = rules.find(({ id }) => id === opened);
  const channels = client.channels.filter(({ id }) => rules.some(({ channelId }) => channelId === id));
  return (
    <>
      <PageHead
        nav={<PlanNav />}
        title="Rhythm"
        note={`On which days what goes out where${zone === here ? '' : `, by the clock in ${zoneWords(zone)}`}. ${rules.length === 0 ? '' : `Changes hold from today on${ended > 0 ? `; ${count(ended, 'rule')} of before ${ended === 1 ? 'is' : 'are'} kept` : ''}.`}`}
      >
        {client.channels.length > 0 && (
          <Button look="main" onClick={() => open('rule')}>
            <Plus size={15} aria-hidden />
            Add to the rhythm
          </Button>
        )}
      </PageHead>
      {rules.length > 0 && (
        <NumbersFields
          key={`${rhythm.data.perWeek} ${rhythm.data.perMonth}`}
          clientId={client.id}
          numbers={{ perWeek: rhythm.data.perWeek, perMonth: rhythm.data.perMonth }}
        />
      )}
      {client.channels.length === 0 ? (
        <Empty title={`${client.name} has no channel yet`}>
          <Link to={to(`/clients/${client.id}?part=channels`)} className="text-pine underline">
            Add one
          </Link>
        </Empty>
      ) : rules.length === 0 ? (
        <Empty title={`${client.name} has no rhythm yet`}>
          Say on which days what goes out where: the slots of every month follow from it, and holes are seen before they come.
        </Empty>
      ) : (
        <div className="grid gap-4 max-w-5xl">
          {channels.map((channel) => (
            <section key={channel.id} aria-label={channel.name} className="card overflow-hidden">
              <h2 className="text-base px-4 pt-3 pb-1">{channel.name}</h2>
              <ul>
                {rules
                  .filter(({ channelId }) => channelId === channel.id)
                  .map((rule) => (
                    <RuleLine key={rule.id} rule={rule} client={client} onEdit={() => open(rule.id)} />
                  ))}
              </ul>
            </section>
          ))}
        </div>
      )}
      <StockSection client={client} asksForIt={rules.some(({ fromStock }) => fromStock)} />
      {rules.length > 0 && <Reach key={JSON.stringify(rhythm.data.audiences)} client={client} rhythm={rhythm.data} />}
      {(opened === 'rule' || edited) && <RuleDialog key={opened} client={client} todayOn={todayOn} rule={edited} onClose={close} />}
    </>
  );
}

function RuleLine({ rule, client, onEdit }: { rule: RhythmRuleShape; client: ClientShape; onEdit: () => void }) {
  const names = useNames(client);
  const end = useWrite(() => call(`/rhythm/${rule.id}`, { method: 'DELETE' }));
  const takeIn = useWrite((on: string) => call(`/rhythm/${rule.id}/exception`, { method: 'PUT', body: { on, isLeftOut: false } }));
  const { data } = useQuery({ ...tagSetsQuery(client.id), enabled: rule.tagSetId != null });
  const tagSet = data?.tagSets.find(({ id }) => id === rule.tagSetId);
  const wants =
    [
      rule.fromStock && 'From the evergreen stock',
      names.pillar(rule.pillarId),
      names.format(rule.formatId),
      tagSet && `begins with the tags of ${tagSet.name}`,
    ]
      .filter(Boolean)
      .join(' · ') || 'anything';
  const words = rhythmWords(rule.rule);
  return (
    <li className="border-t border-line px-4 py-2.5 grid gap-x-4 gap-y-1 sm:grid-cols-[minmax(0,1fr)_auto] items-start">
      <div className="min-w-0">
        <p className="font-medium">
          {words} <span className="tabular">at {rule.at}</span>
        </p>
        <p className="text-muted text-[13px]">
          {wants}
          {rule.skipsHolidays && ', not on public holidays'}
          {rule.untilOn !== null && `, until ${dayWords(rule.untilOn)}`}
          {rule.nextOn.length > 0
            ? `. Next: ${rule.nextOn
                .slice(0, 3)
                .map((on) => dayWords(on))
                .join(', ')}`
            : '. No day is to come'}
        </p>
        {rule.exceptOn.length > 0 && (
          <p className="text-[13px] flex flex-wrap gap-x-2 items-center">
            <span className="text-muted">Left out:</span>
            {rule.exceptOn.map((on) => (
              <span key={on} className="inline-flex items-center gap-1">
                {dayWords(on)}
                <button
                  type="button"
                  className="text-pine underline min-h-6"
                  aria-label={`Take ${dayWords(on)} in again`}
                  onClick={() => takeIn.mutate(on)}
                >
                  take in
                </button>
              </span>
            ))}
          </p>
        )}
      </div>
      <div className="flex gap-2">
        <Button onClick={onEdit} aria-label={`Change ${words} at ${rule.at}`}>
          Change
        </Button>
        <Button
          disabled={end.isPending}
          aria-label={`End ${words} at ${rule.at}`}
          onClick={() => end.mutate(undefined, { onSuccess: () => toast(`${words} ends here; what was before stays.`) })}
        >
          End
        </Button>
      </div>
    </li>
  );
}
