import { and, asc, eq, inArray, sql } from 'drizzle-orm';
import type { InventoryReading } from '../../core/inventory/model.js';
import { InventoryApp, InventoryUnit } from '../../core/inventory/model.js';
import { atomically, type Db } from './open.js';
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
    atomically(this.db, () => {
      const known = new Map(this.written(network).map((row) => [row.id, row]));
      this.db
        .insert(inventories)
        .values({ network, source, readAt, apps })
        .onConflictDoUpdate({ target: inventories.network, set: { source, readAt, apps } })
        .run();
      // Most of a long list is unchanged: only changes are written.
      const write = this.db
        .insert(inventoryUnits)
        .values({
          network,
          id: sql.placeholder('id'),
          position: sql.placeholder('position'),
          unit: sql.placeholder('unit'),
          knownAs: sql.placeholder('knownAs'),
        })
        .onConflictDoUpdate({
          target: [inventoryUnits.network, inventoryUnits.id],
          set: {
            position: sql`excluded.position`,
            unit: sql`excluded.unit`,
            knownAs: sql`excluded.known_as`,
          },
        })
        .prepare();
      units.forEach((unit, position) => {
        const before = known.get(unit.id);
        const knownAs = acceptNames ? unit.name : (before?.knownAs ?? unit.name);
        known.delete(unit.id);
        const same =
          before?.position === position && before.knownAs === knownAs && before.unit === JSON.stringify(unit);
        if (!same) write.run({ id: unit.id, position, unit, knownAs });
      });
      for (const id of known.keys())
        this.db
          .delete(inventoryUnits)
          .where(and(eq(inventoryUnits.network, network), eq(inventoryUnits.id, id)))
          .run();
    });
  }

  /** The rows of a network, each unit as the text that it is stored as. A long list is read bare. */
  private written(network: string): { id: string; position: number; knownAs: string; unit: string }[] {
    return this.db.all(
      sql`select id, position, known_as as "knownAs", unit from ${inventoryUnits} where network = ${network}`,
    );
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
