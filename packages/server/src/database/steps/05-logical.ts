import { deferred, inProject, ref, lowered, type Migration } from './step.ts';

export const fifth: Migration = {
  name: '005 VLANs, addresses, routing',
  up: async (knex) => {
    const vid = (column: string): string => `${column} int CHECK (${column} BETWEEN 1 AND 4094)`;
    const colour = 'colour int NOT NULL CHECK (colour BETWEEN 0 AND 11)';
    await knex.raw(`
      CREATE TABLE vlan_group (
        id uuid PRIMARY KEY, ${inProject}, name text NOT NULL, ${lowered('name')}, notes text,
        CONSTRAINT vlan_group_name UNIQUE (project_id, name_key) ${deferred});
      CREATE TABLE vrf (
        id uuid PRIMARY KEY, ${inProject}, name text NOT NULL, ${lowered('name')}, route_distinguisher text, ${colour},
        notes text,
        CONSTRAINT vrf_name UNIQUE (project_id, name_key) ${deferred},
        CONSTRAINT vrf_distinguisher UNIQUE (project_id, route_distinguisher) ${deferred});
      CREATE TABLE vlan (
        id uuid PRIMARY KEY, ${inProject}, group_id ${ref('vlan_group')} NOT NULL, ${vid('vid')} NOT NULL,
        name text NOT NULL, ${lowered('name')}, purpose text, ${colour}, vrf_id ${ref('vrf')},
        unused boolean NOT NULL, notes text,
        CONSTRAINT vlan_number UNIQUE (group_id, vid) ${deferred},
        CONSTRAINT vlan_name UNIQUE (group_id, name_key) ${deferred});
      CREATE TABLE port_profile (
        id uuid PRIMARY KEY, ${inProject}, name text NOT NULL, ${lowered('name')},
        mode text NOT NULL CHECK (mode IN ('access', 'trunk', 'routed')), ${vid('untagged_vid')}, tagged_vids jsonb,
        ${vid('voice_vid')}, notes text,
        CONSTRAINT port_profile_name UNIQUE (project_id, name_key) ${deferred});

      ALTER TABLE place ADD vlan_group_id ${ref('vlan_group')};
      ALTER TABLE device ADD stack text, ADD bridge_priority int CHECK (bridge_priority BETWEEN 0 AND 61440 AND bridge_priority % 4096 = 0),
        ADD router_id text CHECK (router_id IS NULL OR router_id::inet IS NOT NULL), ADD as_number bigint CHECK (as_number BETWEEN 1 AND 4294967294);
      ALTER TABLE port ADD form text NOT NULL DEFAULT 'physical'
          CHECK (form IN ('physical', 'aggregate', 'vlan', 'subinterface', 'loopback', 'tunnel')),
        ADD mode text CHECK (mode IN ('access', 'trunk', 'routed')),
        ADD ${vid('untagged_vid')}, ADD tagged_vids jsonb, ADD ${vid('voice_vid')},
        ADD vlan_group_id ${ref('vlan_group')}, ADD aggregate_id ${ref('port')}, ADD lacp text CHECK (lacp IN ('active', 'passive', 'on')),
        ADD parent_id ${ref('port')} CHECK (parent_id <> id), ADD ${vid('vid')}, ADD ${vid('inner_vid')}, ADD vrf_id ${ref('vrf')},
        ADD far_address text, ADD ospf jsonb,
        ADD CONSTRAINT port_tagged CHECK (tagged_vids IS NULL OR mode = 'trunk'),
        ADD CONSTRAINT port_not_both CHECK (untagged_vid IS NULL OR tagged_vids IS NULL OR NOT tagged_vids @> to_jsonb(untagged_vid)),
        ADD CONSTRAINT port_vid CHECK ((vid IS NOT NULL) = (form IN ('vlan', 'subinterface')));
      CREATE INDEX port_aggregate ON port (aggregate_id) WHERE aggregate_id IS NOT NULL;
      CREATE INDEX port_parent ON port (parent_id) WHERE parent_id IS NOT NULL;

      CREATE TABLE prefix (
        id uuid PRIMARY KEY, ${inProject}, prefix text NOT NULL, network cidr GENERATED ALWAYS AS (prefix::cidr) STORED,
        vrf_id ${ref('vrf')}, role text NOT NULL CHECK (role IN ('pool', 'subnet', 'transit', 'loopback')), name text,
        status text NOT NULL CHECK (status IN ('planned', 'active', 'retired')), vlan_id ${ref('vlan')},
        place_id ${ref('place')}, gateway text CHECK (gateway::inet << prefix::cidr OR gateway::inet = host(prefix::cidr)::inet),
        ranges jsonb NOT NULL, notes text,
        CONSTRAINT prefix_in_vrf UNIQUE NULLS NOT DISTINCT (project_id, vrf_id, network) ${deferred},
        CONSTRAINT prefix_pool CHECK (role <> 'pool' OR (vlan_id IS NULL AND gateway IS NULL)));
      CREATE INDEX prefix_network ON prefix USING gist (network inet_ops);
      CREATE INDEX prefix_vlan ON prefix (vlan_id) WHERE vlan_id IS NOT NULL;
      CREATE INDEX prefix_place ON prefix (place_id) WHERE place_id IS NOT NULL;
      CREATE TABLE address (
        id uuid PRIMARY KEY, ${inProject}, address text NOT NULL, host inet GENERATED ALWAYS AS (address::inet) STORED,
        vrf_id ${ref('vrf')}, port_id ${ref('port')}, use text NOT NULL CHECK (use IN ('interface', 'secondary', 'reserved')),
        dns_name text, notes text,
        CONSTRAINT address_use CHECK ((use = 'reserved') = (port_id IS NULL)));
      CREATE INDEX address_in_project ON address (project_id);
      CREATE INDEX address_host ON address USING gist (host inet_ops);
      CREATE INDEX address_port ON address (port_id) WHERE port_id IS NOT NULL;
      CREATE TABLE route (
        id uuid PRIMARY KEY, ${inProject}, device_id ${ref('device')} NOT NULL, vrf_id ${ref('vrf')},
        prefix text NOT NULL CHECK (prefix::cidr IS NOT NULL), via text CHECK (via IS NULL OR via::inet IS NOT NULL), via_port_id ${ref('port')},
        discard boolean NOT NULL, distance int NOT NULL CHECK (distance BETWEEN 1 AND 255), notes text,
        CONSTRAINT route_leads CHECK (discard <> (num_nonnulls(via, via_port_id) > 0)));
      CREATE INDEX route_in_project ON route (project_id);
      CREATE INDEX route_device ON route (device_id);
      CREATE TABLE bgp_session (
        id uuid PRIMARY KEY, ${inProject}, device_id ${ref('device')} NOT NULL, vrf_id ${ref('vrf')},
        neighbour text NOT NULL CHECK (neighbour::inet IS NOT NULL),
        remote_as bigint NOT NULL CHECK (remote_as BETWEEN 1 AND 4294967294), families jsonb NOT NULL, notes text,
        CONSTRAINT bgp_session_neighbour UNIQUE NULLS NOT DISTINCT (device_id, vrf_id, neighbour) ${deferred});
      CREATE INDEX bgp_session_in_project ON bgp_session (project_id);
      CREATE TABLE redundancy (
        id uuid PRIMARY KEY, ${inProject}, port_id ${ref('port')} NOT NULL, "group" int NOT NULL CHECK ("group" BETWEEN 1 AND 255),
        virtual text NOT NULL CHECK (virtual::inet IS NOT NULL), priority int NOT NULL CHECK (priority BETWEEN 1 AND 255),
        CONSTRAINT redundancy_group UNIQUE (port_id, "group", virtual) ${deferred});
      CREATE INDEX redundancy_in_project ON redundancy (project_id);
      CREATE TABLE site_template (
        id uuid PRIMARY KEY, ${inProject}, name text NOT NULL, ${lowered('name')}, parts jsonb NOT NULL, notes text,
        CONSTRAINT site_template_name UNIQUE (project_id, name_key) ${deferred});
    `);
  },
};
