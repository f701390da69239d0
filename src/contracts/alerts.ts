import * as v from 'valibot';

/** What somebody is told of without looking: on the screen, by mail, or by a web hook. */

export const ALERT_KINDS = ['rule', 'load', 'drift', 'tray', 'target'] as const;
export type AlertKind = (typeof ALERT_KINDS)[number];
export const WAYS = ['mail', 'hook'] as const;

/** Minutes since midnight. */
const TimeOfDaySchema = v.pipe(v.number(), v.integer(), v.minValue(0), v.maxValue(1_439));
const isZone = (zone: string) => {
  try {
    new Intl.DateTimeFormat('en', { timeZone: zone });
    return true;
  } catch {
    return false;
  }
};

export const AlertTargetSchema = v.pipe(
  v.object({
    way: v.picklist(WAYS),
    address: v.pipe(v.string(), v.trim(), v.minLength(1, 'Name an address.'), v.maxLength(400)),
    kinds: v.pipe(v.array(v.picklist(ALERT_KINDS)), v.minLength(1, 'Choose what it is about.')),
    quiet: v.nullable(v.object({ from: TimeOfDaySchema, to: TimeOfDaySchema })),
    /** once a day, all together; null: at once */
    digestAt: v.nullable(TimeOfDaySchema),
    timeZone: v.pipe(v.string(), v.check(isZone, 'This is no time zone that is known here.')),
    isOn: v.boolean(),
  }),
  v.check(
    ({ way, address }) => way !== 'mail' || v.safeParse(v.pipe(v.string(), v.email()), address).success,
    'This is no e-mail address.',
  ),
  v.check(
    ({ way, address }) => way !== 'hook' || /^https?:\/\/[^\s@]+$/u.test(address),
    'A hook begins with http:// or https://, and holds no name and password.',
  ),
);
export type AlertTarget = v.InferOutput<typeof AlertTargetSchema>;

export const DELIVERY_STATES = ['waits', 'delivered', 'given up'] as const;

/** What a hook is sent, as JSON; the header `gatepost-signature` holds `t=SECONDS,v1=HEX` (HMAC-SHA-256 of `SECONDS.BODY`). */
export const HookBodySchema = v.strictObject({
  /** the same each time that it is tried */
  delivery: v.string(),
  account: v.string(),
  alerts: v.array(
    v.strictObject({ kind: v.picklist(ALERT_KINDS), says: v.string(), at: v.string(), address: v.string() }),
  ),
});
export type HookBody = v.InferOutput<typeof HookBodySchema>;

const AlertLineSchema = v.strictObject({
  ...{ id: v.number(), kind: v.picklist(ALERT_KINDS), says: v.string(), at: v.string(), leadsTo: v.string() },
});
export type AlertLine = v.InferOutput<typeof AlertLineSchema>;
const DeliveryLineSchema = v.strictObject({
  ...{ id: v.number(), targetId: v.number(), state: v.picklist(DELIVERY_STATES), at: v.string() },
  ...{ tries: v.number(), trouble: v.nullable(v.string()), alerts: v.array(v.string()) },
});
export type DeliveryLine = v.InferOutput<typeof DeliveryLineSchema>;

export const AlertsViewSchema = v.strictObject({
  alerts: v.array(AlertLineSchema),
  targets: v.array(v.strictObject({ ...AlertTargetSchema.entries, id: v.number(), by: v.string() })),
  deliveries: v.array(DeliveryLineSchema),
  /** null where no mail can be sent from here; `shownAt`: where a stand-in shows what it took */
  mail: v.nullable(v.strictObject({ shownAt: v.nullable(v.string()) })),
});
export type AlertsView = v.InferOutput<typeof AlertsViewSchema>;

/** The secret of a new hook is told once. */
export const TargetKeptSchema = v.strictObject({
  id: v.number(),
  said: v.string(),
  secret: v.nullable(v.string()),
});
export const RemoveTargetSchema = v.object({ isRemoved: v.boolean() });
