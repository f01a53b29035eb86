import { and, asc, eq, inArray } from 'drizzle-orm';
import type { InventoryReading } from '../../core/inventory/model.js';
import { InventoryApp, InventoryUnit } from '../../core/inventory/model.js';
import type { Db } from './open.js';
import { inventories, inventoryUnits } from './schema.js';

/** What was last read of each network: the one place that reads and writes it. */
export class InventoryStore {
  constructor(private readonly db: Db) {}

  /** Replaces what is known of a network. A unit keeps the name that it was first seen with. */
  save(
    reading: Omit<InventoryReading, 'knownAs'>,
    { acceptNames = false }: { acceptNames?: boolean } = {},
  ): void {
    const { network, source, readAt, apps, units } = reading;
    this.db.transaction(() => {
      const known = new Map(this.rows(network).map((row) => [row.id, row.knownAs]));
      this.db
        .insert(inventories)
        .values({ network, source, readAt, apps })
        .onConflictDoUpdate({ target: inventories.network, set: { source, readAt, apps } })
        .run();
      this.db.delete(inventoryUnits).where(eq(inventoryUnits.network, network)).run();
      units.forEach((unit, position) => {
        const knownAs = acceptNames ? unit.name : (known.get(unit.id) ?? unit.name);
        this.db.insert(inventoryUnits).values({ network, id: unit.id, position, unit, knownAs }).run();
      });
    });
  }

  find(network: string): InventoryReading | null {
    const row = this.db.select().from(inventories).where(eq(inventories.network, network)).get();
    return row ? this.reading(row, this.rows(network)) : null;
  }

  /** What is known of every network, but only of the units with these IDs: a list may be long. */
  about(ids: readonly string[]): InventoryReading[] {
    const wanted = [...new Set(ids)];
    return this.db
      .select()
      .from(inventories)
      .all()
      .map((row) => {
        const units: (typeof inventoryUnits.$inferSelect)[] = [];
        for (let at = 0; at < wanted.length; at += 500)
          units.push(
            ...this.db
              .select()
              .from(inventoryUnits)
              .where(
                and(
                  eq(inventoryUnits.network, row.network),
                  inArray(inventoryUnits.id, wanted.slice(at, at + 500)),
                ),
              )
              .all(),
          );
        return this.reading(row, units);
      });
  }

  private rows(network: string) {
    return this.db
      .select()
      .from(inventoryUnits)
      .where(eq(inventoryUnits.network, network))
      .orderBy(asc(inventoryUnits.position))
      .all();
  }

  private reading(
    { network, source, readAt, apps }: typeof inventories.$inferSelect,
    units: readonly (typeof inventoryUnits.$inferSelect)[],
  ): InventoryReading {
    const parsed = units.map(({ unit }) => InventoryUnit.parse(unit));
    return {
      network,
      source: source === 'csv' ? 'csv' : 'http',
      readAt,
      apps: InventoryApp.array().parse(apps),
      units: parsed,
      knownAs: Object.fromEntries(
        units.flatMap(({ id, knownAs }, at) => (parsed[at]?.name === knownAs ? [] : [[id, knownAs]])),
      ),
    };
  }
}
