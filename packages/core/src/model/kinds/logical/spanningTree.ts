import { z } from 'zod';
import { macField } from '../../fields/field.ts';
import { vidsSchema } from '../../values/vids.ts';

/**
 * How a switch keeps its links free of loops: not at all, by one tree for all VLANs (IEEE 802.1D-2004), by a tree for
 * each VLAN, or by instances that VLANs are mapped to (IEEE 802.1Q-2022 clause 13).
 */
export const spanningTreeModes = ['off', 'one', 'per VLAN', 'instances'] as const;
export type SpanningTreeMode = (typeof spanningTreeModes)[number];

/** Bridge priorities go in steps of 4096 (IEEE 802.1D-2004 clause 9.2.5). */
export const bridgePriorityField = z
  .int('is not a whole number')
  .min(0, 'is below 0')
  .max(61440, 'is above 61440')
  .refine((value) => value % 4096 === 0, 'is not a multiple of 4096 (IEEE 802.1D-2004 clause 9.2.5)');

/** Some VLANs that go by a priority of their own, in an instance where the switch has instances. */
const partSchema = z.strictObject({
  instance: z
    .int()
    .min(1, 'has an instance below 1')
    .max(4094, 'has an instance above 4094')
    .nullable()
    .default(null),
  vids: vidsSchema,
  priority: bridgePriorityField.nullable().default(null),
});
export type SpanningTreePart = z.infer<typeof partSchema>;

/** How the spanning tree of a switch is set. */
export const spanningTreeSchema = z
  .strictObject({
    mode: z.enum(spanningTreeModes),
    region: z
      .string()
      .min(1, 'has a region without a name')
      .max(32, 'has a region of over 32 characters')
      .nullable()
      .default(null),
    parts: z.array(partSchema).max(64, 'has more than 64 parts').default([]),
  })
  .superRefine(({ mode, region, parts }, context) => {
    const issue = (message: string): void => void context.addIssue({ code: 'custom', path: [], message });
    if (mode !== 'instances' && region !== null) issue('has a region, which only instances have');
    if (parts.length > 0 && (mode === 'off' || mode === 'one'))
      issue(`has parts although its mode is ${mode}: only trees per VLAN or by instance have some`);
    const seen = new Set<number>();
    const instances = new Set<number>();
    for (const { instance, vids, priority } of parts) {
      if (mode === 'instances' && instance === null) issue('has a part without the number of its instance');
      if (mode === 'per VLAN' && instance !== null)
        issue(`has instance ${instance} although trees are per VLAN`);
      if (mode === 'per VLAN' && priority === null)
        issue('has a part without a priority, which says nothing');
      if (instance !== null && instances.has(instance)) issue(`has instance ${instance} twice`);
      if (instance !== null) instances.add(instance);
      if (vids === 'all' || vids.length === 0) issue('has a part without VLAN numbers of its own');
      else
        for (const vid of vids) {
          if (seen.has(vid)) issue(`has VLAN ${vid} in two parts`);
          seen.add(vid);
        }
    }
  });
export type SpanningTreeSettings = z.infer<typeof spanningTreeSchema>;

/** How a port takes part: cost and priority follow from the speed and the standard where they are null. */
export const portSpanningTreeSchema = z.strictObject({
  cost: z
    .int('has a cost that is not a whole number')
    .min(1, 'has a cost below 1')
    .max(200_000_000, 'has a cost above 200000000 (IEEE 802.1D-2004 table 17-3)')
    .nullable()
    .default(null),
  priority: z
    .int('has a priority that is not a whole number')
    .min(0, 'has a priority below 0')
    .max(240, 'has a priority above 240')
    .refine(
      (value) => value % 16 === 0,
      'has a priority that is not a multiple of 16 (IEEE 802.1D-2004 clause 9.2.7)',
    )
    .nullable()
    .default(null),
  edge: z.boolean().default(false),
});
export type PortSpanningTree = z.infer<typeof portSpanningTreeSchema>;

/** The address that a bridge goes by (EUI-48), written as `02:00:5e:00:53:01`. */
export const bridgeAddressField = macField('Bridge address', 'Decides between bridges of equal priority');
