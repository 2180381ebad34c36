import { NettingError } from '../../../core/errors';
import { database } from '../../../db/client';
import type { Actor } from '../../access/actor';
import { addMapping } from '../../accounts/mapping/add-mapping';
import { findProducts } from '../../accounts/mapping/find-products';
import { mapCategory } from '../../accounts/mapping/map-category';
import { endThere, nearestPrice } from '../../accounts/rules/fix-options';
import { type ViolationRow, violationKey, violationRows } from '../../accounts/rules/violation-rows';
import { updateAccount } from '../../accounts/update-account';
import { type LoadedAccount, loadAccounts } from '../../records/accounts/load-accounts';
import { endListings } from '../publish/end-listings';
import { sendChanged } from '../publish/send-changed';
import type { FixAll, FixSeen } from './fix-schema';
import { writeAll } from './write-fixes';

/** All listings of an account that do not fit for this one reason. */
export async function concerned(account: LoadedAccount, input: FixSeen): Promise<ViolationRow[]> {
  const wanted = violationKey(input);
  const found: ViolationRow[] = [];
  for await (const some of violationRows(database(), account))
    found.push(...some.filter((one) => one.issues.some((issue) => violationKey(issue) === wanted)));
  return found;
}

/** One mend for every listing that does not fit for the same reason. What was typed elsewhere stays. */
export async function fixAll(
  actor: Actor,
  input: FixAll,
): Promise<{ listings: number; left: number; queued: number; runId: number | null }> {
  const [account] = await loadAccounts(database(), [input.accountId]);
  if (!account) throw new NettingError('not-found', 'There is no such account');
  const rows = await concerned(account, input);
  const issue = rows[0]?.issues.find((one) => violationKey(one) === violationKey(input));
  if (!issue) throw new NettingError('conflict', 'Nothing is left to mend here', { fix: 'Load the page again' });
  let runId: number | null = null;
  const needsValue = () => {
    if (!input.value) throw new NettingError('invalid', 'Choose or write what it shall be', { field: 'value' });
    return input.value;
  };
  if (input.code === 'price-range') {
    if (needsValue() === endThere) {
      const ended = await endListings(actor, {
        selection: { kind: 'items', ids: rows.map((one) => one.item.id) },
        accounts: [account.id],
      });
      return { listings: ended.queued, left: rows.length - ended.queued, queued: ended.queued, runId: ended.runId };
    }
    if (input.value !== nearestPrice)
      throw new NettingError('invalid', 'Choose what shall become of the price', { field: 'value' });
    runId = await writeAll(actor, account, rows, input, `${issue.fix.label}: ${account.name}`);
  } else
    switch (issue.fix.kind) {
      case 'map-category': {
        const categoryId = needsValue();
        const own = new Set(rows.map((one) => one.item.category).filter(Boolean));
        for (const ownCategory of own) await mapCategory(actor, account.id, { ownCategory, categoryId });
        // What was chosen for one listing alone stands before the mapping: it is taken back.
        const typed = rows.filter((one) => one.row.overrides.category !== undefined);
        if (typed.length)
          runId = await writeAll(
            actor,
            account,
            typed,
            { ...input, code: 'category', field: 'category' },
            issue.fix.label,
          );
        break;
      }
      case 'account-default':
        await updateAccount(actor, account.id, { defaults: { [issue.fix.field]: needsValue() } });
        break;
      case 'map-value':
        await addMapping(actor, {
          market: account.compiled.rules.market,
          kind: 'value',
          attribute: input.field.slice('attr.'.length),
          source: issue.fix.source,
          target: needsValue(),
        });
        break;
      case 'find-product':
        for (let at = 0; at < rows.length; at += 500)
          await findProducts(actor, {
            accountId: account.id,
            itemIds: rows.slice(at, at + 500).map((one) => one.item.id),
          });
        break;
      case 'edit-override':
      case 'edit-master':
        if (!['title-long', 'title-pattern', 'description-long', 'note-long'].includes(input.code)) needsValue();
        runId = await writeAll(actor, account, rows, input, `${issue.fix.label}: ${account.name}`);
        break;
      default:
        throw new NettingError('invalid', 'This has to be mended at its own place');
    }
  const [fresh] = await loadAccounts(database(), [account.id]);
  const left = fresh ? (await concerned(fresh, input)).length : 0;
  const queued = input.send
    ? await sendChanged(
        actor,
        rows.map((one) => one.row.id),
        issue.fix.label,
      )
    : 0;
  return { listings: rows.length - left, left, queued, runId };
}
