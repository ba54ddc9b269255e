--
-- PostgreSQL database dump
--


-- Dumped from database version 15.18 (Debian 15.18-0+deb12u1)
-- Dumped by pg_dump version 15.18 (Debian 15.18-0+deb12u1)

SET statement_timeout = 0;
SET lock_timeout = 0;
SET idle_in_transaction_session_timeout = 0;
SET client_encoding = 'UTF8';
SET standard_conforming_strings = on;
SELECT pg_catalog.set_config('search_path', '', false);
SET check_function_bodies = false;
SET xmloption = content;
SET client_min_messages = warning;
SET row_security = off;

--
-- Name: drizzle; Type: SCHEMA; Schema: -; Owner: -
--

CREATE SCHEMA drizzle;


--
-- Name: postgis; Type: EXTENSION; Schema: -; Owner: -
--



--
-- Name: EXTENSION postgis; Type: COMMENT; Schema: -; Owner: -
--



--
-- Name: stale_links(uuid[]); Type: FUNCTION; Schema: public; Owner: -
--

CREATE FUNCTION public.stale_links(ids uuid[]) RETURNS void
    LANGUAGE plpgsql
    AS $$
BEGIN
  IF ids IS NULL OR cardinality(ids) = 0 THEN RETURN; END IF;
  PERFORM 1 FROM link_verdict WHERE link_id = ANY(ids) ORDER BY link_id FOR UPDATE;
  UPDATE link_verdict SET want = want + 1, claimed_until = NULL WHERE link_id = ANY(ids);
  PERFORM pg_notify('dryarc_verdict', '');
END $$;


--
-- Name: stale_links_near(uuid, public.geometry); Type: FUNCTION; Schema: public; Owner: -
--

CREATE FUNCTION public.stale_links_near(of_job uuid, area public.geometry) RETURNS void
    LANGUAGE plpgsql
    AS $$
BEGIN
  PERFORM stale_links(ARRAY(
    SELECT l.id FROM link l JOIN site n ON n.id = l.near_site_id JOIN site f ON f.id = l.far_site_id
    WHERE (of_job IS NULL OR l.job_id = of_job) AND l.deleted_at IS NULL
      AND ST_DWithin(
        ST_SetSRID(ST_MakeLine(ST_MakePoint(n.lon_deg, n.lat_deg), ST_MakePoint(f.lon_deg, f.lat_deg)), 4326), area,
        (900 + 0.27 * sqrt(ST_DistanceSphere(ST_MakePoint(n.lon_deg, n.lat_deg), ST_MakePoint(f.lon_deg, f.lat_deg))))
          / (111320 * greatest(0.02, cos(radians(n.lat_deg)))))));
END $$;


--
-- Name: stale_of_changed_drawn(); Type: FUNCTION; Schema: public; Owner: -
--

CREATE FUNCTION public.stale_of_changed_drawn() RETURNS trigger
    LANGUAGE plpgsql
    AS $_$
DECLARE j record;
BEGIN
  FOR j IN EXECUTE format('SELECT job_id, CASE WHEN count(*) > 400 THEN ST_SetSRID(ST_Extent(%1$I)::geometry, 4326) ELSE ST_Collect(%1$I) END AS area FROM (SELECT job_id, %1$I FROM was UNION ALL SELECT job_id, %1$I FROM changed) both_ways GROUP BY job_id', TG_ARGV[0]) LOOP
    PERFORM stale_links_near(j.job_id, j.area);
  END LOOP;
  RETURN NULL;
END $_$;


--
-- Name: stale_of_design(); Type: FUNCTION; Schema: public; Owner: -
--

CREATE FUNCTION public.stale_of_design() RETURNS trigger
    LANGUAGE plpgsql
    AS $$
BEGIN
  IF NEW.chosen OR (TG_OP = 'UPDATE' AND OLD.chosen) THEN PERFORM stale_links(ARRAY[NEW.link_id]); END IF;
  RETURN NULL;
END $$;


--
-- Name: stale_of_job(); Type: FUNCTION; Schema: public; Owner: -
--

CREATE FUNCTION public.stale_of_job() RETURNS trigger
    LANGUAGE plpgsql
    AS $$
DECLARE words text[] := ARRAY['name','place','stage','number','revision','version','created_at','updated_at','centre_lat_deg','centre_lon_deg'];
BEGIN
  IF to_jsonb(NEW) - words IS DISTINCT FROM to_jsonb(OLD) - words THEN
    PERFORM stale_links(ARRAY(SELECT id FROM link WHERE job_id = NEW.id));
  END IF;
  RETURN NULL;
END $$;


--
-- Name: stale_of_link(); Type: FUNCTION; Schema: public; Owner: -
--

CREATE FUNCTION public.stale_of_link() RETURNS trigger
    LANGUAGE plpgsql
    AS $$
BEGIN
  IF TG_OP = 'INSERT' THEN
    INSERT INTO link_verdict (link_id, job_id) VALUES (NEW.id, NEW.job_id);
    PERFORM pg_notify('dryarc_verdict', '');
  ELSIF (NEW.near_site_id, NEW.far_site_id, NEW.ground_told, NEW.deleted_at) IS DISTINCT FROM (OLD.near_site_id, OLD.far_site_id, OLD.ground_told, OLD.deleted_at) THEN
    PERFORM stale_links(ARRAY[NEW.id]);
  END IF;
  RETURN NULL;
END $$;


--
-- Name: stale_of_new_drawn(); Type: FUNCTION; Schema: public; Owner: -
--

CREATE FUNCTION public.stale_of_new_drawn() RETURNS trigger
    LANGUAGE plpgsql
    AS $_$
DECLARE j record;
BEGIN
  FOR j IN EXECUTE format('SELECT job_id, CASE WHEN count(*) > 200 THEN ST_SetSRID(ST_Extent(%1$I)::geometry, 4326) ELSE ST_Collect(%1$I) END AS area FROM changed GROUP BY job_id', TG_ARGV[0]) LOOP
    PERFORM stale_links_near(j.job_id, j.area);
  END LOOP;
  RETURN NULL;
END $_$;


--
-- Name: stale_of_sheet(); Type: FUNCTION; Schema: public; Owner: -
--

CREATE FUNCTION public.stale_of_sheet() RETURNS trigger
    LANGUAGE plpgsql
    AS $$
BEGIN
  IF TG_OP = 'UPDATE' AND NEW.sheet = OLD.sheet AND NEW.deleted_at IS NOT DISTINCT FROM OLD.deleted_at THEN RETURN NULL; END IF;
  PERFORM stale_links(ARRAY(SELECT link_id FROM design
    WHERE chosen AND deleted_at IS NULL AND NEW.id IN (near_radio_id, far_radio_id, near_antenna_id, far_antenna_id)));
  RETURN NULL;
END $$;


--
-- Name: stale_of_site(); Type: FUNCTION; Schema: public; Owner: -
--

CREATE FUNCTION public.stale_of_site() RETURNS trigger
    LANGUAGE plpgsql
    AS $$
DECLARE words text[] := ARRAY['notes','access','owner','cable_entry','power','ticks','version','updated_at','import_id'];
BEGIN
  IF to_jsonb(NEW) - words IS DISTINCT FROM to_jsonb(OLD) - words THEN
    PERFORM stale_links(ARRAY(SELECT id FROM link WHERE NEW.id IN (near_site_id, far_site_id)));
  END IF;
  RETURN NULL;
END $$;


--
-- Name: stale_of_terrain(); Type: FUNCTION; Schema: public; Owner: -
--

CREATE FUNCTION public.stale_of_terrain() RETURNS trigger
    LANGUAGE plpgsql
    AS $$
BEGIN
  IF TG_OP = 'INSERT' THEN
    IF NEW.ready THEN PERFORM stale_links_near(NULL, NEW.coverage); END IF;
  ELSIF (NEW.ready, NEW.deleted_at, NEW.sigma_m, NEW.kind, NEW.datum_offset_m, NEW.name) IS DISTINCT FROM (OLD.ready, OLD.deleted_at, OLD.sigma_m, OLD.kind, OLD.datum_offset_m, OLD.name) THEN
    PERFORM stale_links_near(NULL, NEW.coverage);
  END IF;
  RETURN NULL;
END $$;


SET default_tablespace = '';

SET default_table_access_method = heap;

--
-- Name: __drizzle_migrations; Type: TABLE; Schema: drizzle; Owner: -
--

CREATE TABLE drizzle.__drizzle_migrations (
    id integer NOT NULL,
    hash text NOT NULL,
    created_at bigint
);


--
-- Name: __drizzle_migrations_id_seq; Type: SEQUENCE; Schema: drizzle; Owner: -
--

CREATE SEQUENCE drizzle.__drizzle_migrations_id_seq
    AS integer
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1;


--
-- Name: __drizzle_migrations_id_seq; Type: SEQUENCE OWNED BY; Schema: drizzle; Owner: -
--

ALTER SEQUENCE drizzle.__drizzle_migrations_id_seq OWNED BY drizzle.__drizzle_migrations.id;


--
-- Name: antenna; Type: TABLE; Schema: public; Owner: -
--

CREATE TABLE public.antenna (
    id text NOT NULL,
    name text NOT NULL,
    sheet jsonb NOT NULL,
    source text NOT NULL,
    version integer DEFAULT 1 NOT NULL,
    created_at timestamp with time zone DEFAULT now() NOT NULL,
    updated_at timestamp with time zone DEFAULT now() NOT NULL,
    deleted_at timestamp with time zone,
    import_id uuid
);


--
-- Name: basemap; Type: TABLE; Schema: public; Owner: -
--

CREATE TABLE public.basemap (
    id uuid DEFAULT gen_random_uuid() NOT NULL,
    job_id uuid NOT NULL,
    kind text NOT NULL,
    name text NOT NULL,
    address text,
    upload_id uuid,
    credit text DEFAULT ''::text NOT NULL,
    version integer DEFAULT 1 NOT NULL,
    created_at timestamp with time zone DEFAULT now() NOT NULL,
    updated_at timestamp with time zone DEFAULT now() NOT NULL,
    deleted_at timestamp with time zone
);


--
-- Name: beat; Type: TABLE; Schema: public; Owner: -
--

CREATE TABLE public.beat (
    id text NOT NULL,
    at timestamp with time zone DEFAULT now() NOT NULL
);


--
-- Name: brief; Type: TABLE; Schema: public; Owner: -
--

CREATE TABLE public.brief (
    job_id uuid NOT NULL,
    doc jsonb NOT NULL,
    version integer DEFAULT 1 NOT NULL,
    created_at timestamp with time zone DEFAULT now() NOT NULL,
    updated_at timestamp with time zone DEFAULT now() NOT NULL,
    deleted_at timestamp with time zone
);


--
-- Name: change; Type: TABLE; Schema: public; Owner: -
--

CREATE TABLE public.change (
    id bigint NOT NULL,
    job_id uuid,
    entity text NOT NULL,
    entity_id text NOT NULL,
    action text NOT NULL,
    before jsonb,
    after jsonb,
    at timestamp with time zone DEFAULT now() NOT NULL,
    client_id text,
    undoes bigint,
    undone boolean DEFAULT false NOT NULL,
    step uuid
);


--
-- Name: change_id_seq; Type: SEQUENCE; Schema: public; Owner: -
--

CREATE SEQUENCE public.change_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1;


--
-- Name: change_id_seq; Type: SEQUENCE OWNED BY; Schema: public; Owner: -
--

ALTER SEQUENCE public.change_id_seq OWNED BY public.change.id;


--
-- Name: design; Type: TABLE; Schema: public; Owner: -
--

CREATE TABLE public.design (
    id uuid DEFAULT gen_random_uuid() NOT NULL,
    link_id uuid NOT NULL,
    chosen boolean DEFAULT true NOT NULL,
    near_mount_agl_m double precision NOT NULL,
    far_mount_agl_m double precision NOT NULL,
    near_radio_id text NOT NULL,
    far_radio_id text NOT NULL,
    near_antenna_id text,
    far_antenna_id text,
    near_power_dbm double precision NOT NULL,
    far_power_dbm double precision NOT NULL,
    near_feeder_loss_db double precision DEFAULT 0 NOT NULL,
    far_feeder_loss_db double precision DEFAULT 0 NOT NULL,
    centre_mhz double precision NOT NULL,
    width_mhz double precision NOT NULL,
    need_to_far_mbps double precision,
    need_to_near_mbps double precision,
    trims_m jsonb DEFAULT '{}'::jsonb NOT NULL,
    version integer DEFAULT 1 NOT NULL,
    created_at timestamp with time zone DEFAULT now() NOT NULL,
    updated_at timestamp with time zone DEFAULT now() NOT NULL,
    deleted_at timestamp with time zone,
    near_connector_loss_db double precision DEFAULT 0 NOT NULL,
    far_connector_loss_db double precision DEFAULT 0 NOT NULL,
    near_wall text,
    far_wall text,
    near_wall_loss_db double precision,
    far_wall_loss_db double precision,
    near_interference_dbm double precision,
    far_interference_dbm double precision,
    near_aim_azimuth_deg double precision,
    far_aim_azimuth_deg double precision,
    near_aim_tilt_deg double precision,
    far_aim_tilt_deg double precision,
    frame_share_to_far double precision,
    near_mount_id text,
    far_mount_id text,
    name text DEFAULT ''::text NOT NULL,
    policy_over jsonb DEFAULT '{}'::jsonb NOT NULL,
    need_year_percent double precision DEFAULT 99.9 NOT NULL,
    near_port integer,
    far_port integer,
    permissions jsonb DEFAULT '[]'::jsonb NOT NULL
);


--
-- Name: feature; Type: TABLE; Schema: public; Owner: -
--

CREATE TABLE public.feature (
    id uuid DEFAULT gen_random_uuid() NOT NULL,
    job_id uuid NOT NULL,
    name text NOT NULL,
    shape public.geometry(Geometry,4326) NOT NULL,
    version integer DEFAULT 1 NOT NULL,
    created_at timestamp with time zone DEFAULT now() NOT NULL,
    updated_at timestamp with time zone DEFAULT now() NOT NULL,
    deleted_at timestamp with time zone,
    import_id uuid
);


--
-- Name: file_import; Type: TABLE; Schema: public; Owner: -
--

CREATE TABLE public.file_import (
    id uuid DEFAULT gen_random_uuid() NOT NULL,
    job_id uuid,
    upload_id uuid,
    file_name text NOT NULL,
    what text NOT NULL,
    options jsonb NOT NULL,
    state text DEFAULT 'waiting'::text NOT NULL,
    done_share double precision DEFAULT 0 NOT NULL,
    result jsonb,
    fault text,
    client_id text,
    version integer DEFAULT 1 NOT NULL,
    created_at timestamp with time zone DEFAULT now() NOT NULL,
    updated_at timestamp with time zone DEFAULT now() NOT NULL,
    deleted_at timestamp with time zone,
    attempts integer DEFAULT 0 NOT NULL
);


--
-- Name: job; Type: TABLE; Schema: public; Owner: -
--

CREATE TABLE public.job (
    id uuid DEFAULT gen_random_uuid() NOT NULL,
    number integer NOT NULL,
    name text NOT NULL,
    place text DEFAULT ''::text NOT NULL,
    stage text DEFAULT 'Enquiry'::text NOT NULL,
    visit_on date NOT NULL,
    centre_lat_deg double precision NOT NULL,
    centre_lon_deg double precision NOT NULL,
    rule_domain text DEFAULT 'cautious'::text NOT NULL,
    clearance_policy text DEFAULT 'sixty'::text NOT NULL,
    k_factor double precision DEFAULT 1.3333333333333333 NOT NULL,
    tree_policy text DEFAULT 'strict'::text NOT NULL,
    horizon_years integer DEFAULT 5 NOT NULL,
    throughput_school text DEFAULT 'headroom'::text NOT NULL,
    free_share double precision DEFAULT 0.3 NOT NULL,
    margin_db double precision DEFAULT 10 NOT NULL,
    rain_rate_001_mm_h double precision DEFAULT 30 NOT NULL,
    temperature_c double precision DEFAULT 10 NOT NULL,
    pressure_hpa double precision DEFAULT 1013 NOT NULL,
    vapour_density_g_m3 double precision DEFAULT 7.5 NOT NULL,
    revision integer DEFAULT 1 NOT NULL,
    version integer DEFAULT 1 NOT NULL,
    created_at timestamp with time zone DEFAULT now() NOT NULL,
    updated_at timestamp with time zone DEFAULT now() NOT NULL,
    deleted_at timestamp with time zone,
    climate_zone text DEFAULT 'temperate'::text NOT NULL,
    leaf_state text DEFAULT 'in'::text NOT NULL,
    gradient_dn1_n_per_km double precision DEFAULT '-250'::integer NOT NULL,
    roughness_sa_m double precision,
    water_surface text DEFAULT 'auto'::text NOT NULL,
    tide_range_m double precision DEFAULT 0 NOT NULL,
    water_roughness_m double precision DEFAULT 0.05 NOT NULL,
    k_low_20 double precision DEFAULT 0.6 NOT NULL,
    k_low_50 double precision DEFAULT 0.8 NOT NULL,
    k_low_100 double precision DEFAULT 0.9 NOT NULL
);


--
-- Name: link; Type: TABLE; Schema: public; Owner: -
--

CREATE TABLE public.link (
    id uuid DEFAULT gen_random_uuid() NOT NULL,
    job_id uuid NOT NULL,
    number integer NOT NULL,
    near_site_id uuid NOT NULL,
    far_site_id uuid NOT NULL,
    label text DEFAULT ''::text NOT NULL,
    stage text DEFAULT 'Planned'::text NOT NULL,
    version integer DEFAULT 1 NOT NULL,
    created_at timestamp with time zone DEFAULT now() NOT NULL,
    updated_at timestamp with time zone DEFAULT now() NOT NULL,
    deleted_at timestamp with time zone,
    ground_told jsonb
);


--
-- Name: link_verdict; Type: TABLE; Schema: public; Owner: -
--

CREATE TABLE public.link_verdict (
    link_id uuid NOT NULL,
    job_id uuid NOT NULL,
    want bigint DEFAULT 1 NOT NULL,
    have bigint DEFAULT 0 NOT NULL,
    judgement jsonb,
    program text DEFAULT ''::text NOT NULL,
    claimed_until timestamp with time zone,
    asked_at timestamp with time zone
);


--
-- Name: made_edit; Type: TABLE; Schema: public; Owner: -
--

CREATE TABLE public.made_edit (
    id uuid NOT NULL,
    answer jsonb,
    at timestamp with time zone DEFAULT now() NOT NULL
);


--
-- Name: obstacle; Type: TABLE; Schema: public; Owner: -
--

CREATE TABLE public.obstacle (
    id uuid DEFAULT gen_random_uuid() NOT NULL,
    job_id uuid NOT NULL,
    name text NOT NULL,
    kind text NOT NULL,
    outline public.geometry(Polygon,4326) NOT NULL,
    base_amsl_m double precision,
    height_m double precision NOT NULL,
    crown_base_m double precision DEFAULT 0 NOT NULL,
    growth_m_per_year double precision DEFAULT 0 NOT NULL,
    height_sigma_m double precision NOT NULL,
    species text,
    source text DEFAULT 'drawn'::text NOT NULL,
    surveyed_on date NOT NULL,
    version integer DEFAULT 1 NOT NULL,
    created_at timestamp with time zone DEFAULT now() NOT NULL,
    updated_at timestamp with time zone DEFAULT now() NOT NULL,
    deleted_at timestamp with time zone,
    free_below_m double precision DEFAULT 0 NOT NULL,
    leaf text,
    height_source text DEFAULT 'typed'::text NOT NULL,
    import_id uuid
);


--
-- Name: photo; Type: TABLE; Schema: public; Owner: -
--

CREATE TABLE public.photo (
    id uuid DEFAULT gen_random_uuid() NOT NULL,
    job_id uuid NOT NULL,
    site_id uuid,
    from_where text NOT NULL,
    bearing_deg double precision,
    taken_on date,
    note text DEFAULT ''::text NOT NULL,
    mime text NOT NULL,
    bytes bytea NOT NULL,
    version integer DEFAULT 1 NOT NULL,
    created_at timestamp with time zone DEFAULT now() NOT NULL,
    updated_at timestamp with time zone DEFAULT now() NOT NULL,
    deleted_at timestamp with time zone
);


--
-- Name: radio; Type: TABLE; Schema: public; Owner: -
--

CREATE TABLE public.radio (
    id text NOT NULL,
    name text NOT NULL,
    band_key text NOT NULL,
    family text NOT NULL,
    sheet jsonb NOT NULL,
    source text NOT NULL,
    version integer DEFAULT 1 NOT NULL,
    created_at timestamp with time zone DEFAULT now() NOT NULL,
    updated_at timestamp with time zone DEFAULT now() NOT NULL,
    deleted_at timestamp with time zone,
    import_id uuid
);


--
-- Name: site; Type: TABLE; Schema: public; Owner: -
--

CREATE TABLE public.site (
    id uuid DEFAULT gen_random_uuid() NOT NULL,
    job_id uuid NOT NULL,
    name text NOT NULL,
    lat_deg double precision NOT NULL,
    lon_deg double precision NOT NULL,
    mount_agl_m double precision NOT NULL,
    mount_max_agl_m double precision,
    structure text DEFAULT ''::text NOT NULL,
    power text DEFAULT ''::text NOT NULL,
    version integer DEFAULT 1 NOT NULL,
    created_at timestamp with time zone DEFAULT now() NOT NULL,
    updated_at timestamp with time zone DEFAULT now() NOT NULL,
    deleted_at timestamp with time zone,
    material text DEFAULT ''::text NOT NULL,
    cable_entry text DEFAULT ''::text NOT NULL,
    access text DEFAULT ''::text NOT NULL,
    owner text DEFAULT ''::text NOT NULL,
    notes text DEFAULT ''::text NOT NULL,
    mounting_points jsonb DEFAULT '[]'::jsonb NOT NULL,
    ticks jsonb DEFAULT '[]'::jsonb NOT NULL,
    import_id uuid,
    mast_cost_per_m double precision
);


--
-- Name: terrain_dataset; Type: TABLE; Schema: public; Owner: -
--

CREATE TABLE public.terrain_dataset (
    id uuid DEFAULT gen_random_uuid() NOT NULL,
    name text NOT NULL,
    kind text NOT NULL,
    crs text NOT NULL,
    origin_x double precision NOT NULL,
    origin_y double precision NOT NULL,
    step_x double precision NOT NULL,
    step_y double precision NOT NULL,
    cols integer NOT NULL,
    rows integer NOT NULL,
    cell_m double precision NOT NULL,
    sigma_m double precision NOT NULL,
    tile_cells integer NOT NULL,
    vertical_datum text NOT NULL,
    source text NOT NULL,
    coverage public.geometry(Polygon,4326) NOT NULL,
    version integer DEFAULT 1 NOT NULL,
    created_at timestamp with time zone DEFAULT now() NOT NULL,
    updated_at timestamp with time zone DEFAULT now() NOT NULL,
    deleted_at timestamp with time zone,
    crs_definition text,
    datum_offset_m double precision DEFAULT 0 NOT NULL,
    vertical_unit text DEFAULT 'm'::text NOT NULL,
    ready boolean DEFAULT true NOT NULL,
    import_id uuid
);


--
-- Name: terrain_tile; Type: TABLE; Schema: public; Owner: -
--

CREATE TABLE public.terrain_tile (
    dataset_id uuid NOT NULL,
    tile_row integer NOT NULL,
    tile_col integer NOT NULL,
    heights_m bytea NOT NULL
);
ALTER TABLE ONLY public.terrain_tile ALTER COLUMN heights_m SET STORAGE EXTERNAL;


--
-- Name: upload; Type: TABLE; Schema: public; Owner: -
--

CREATE TABLE public.upload (
    id uuid DEFAULT gen_random_uuid() NOT NULL,
    job_id uuid,
    name text NOT NULL,
    size_bytes double precision NOT NULL,
    received_bytes double precision DEFAULT 0 NOT NULL,
    created_at timestamp with time zone DEFAULT now() NOT NULL,
    updated_at timestamp with time zone DEFAULT now() NOT NULL,
    deleted_at timestamp with time zone
);


--
-- Name: __drizzle_migrations id; Type: DEFAULT; Schema: drizzle; Owner: -
--

ALTER TABLE ONLY drizzle.__drizzle_migrations ALTER COLUMN id SET DEFAULT nextval('drizzle.__drizzle_migrations_id_seq'::regclass);


--
-- Name: change id; Type: DEFAULT; Schema: public; Owner: -
--

ALTER TABLE ONLY public.change ALTER COLUMN id SET DEFAULT nextval('public.change_id_seq'::regclass);


--
-- Data for Name: __drizzle_migrations; Type: TABLE DATA; Schema: drizzle; Owner: -
--

INSERT INTO drizzle.__drizzle_migrations VALUES (1, '5e73e8670f1c575f1cc3bd7346ef214ccaafd651c33ac5099093e20013738f0e', 1795493505407);
INSERT INTO drizzle.__drizzle_migrations VALUES (2, 'f04c31995d883597427575b75490337620c64085b1df5f19fbd5e088c99dbd4c', 1795594672947);
INSERT INTO drizzle.__drizzle_migrations VALUES (3, 'bb5ce1fbf85ef53ecde58925b14755d7efc99283b939beadaf6169647d99cec6', 1795606782830);
INSERT INTO drizzle.__drizzle_migrations VALUES (4, '8908c119a56b8f343f436ea80bca4573844648b950e10e887e14c301616b506b', 1795619010997);
INSERT INTO drizzle.__drizzle_migrations VALUES (5, '186bdf73fc8bdf7d14feca8a769062ff31ce7c45f62e7ac2718df3257c2017b4', 1795739572765);
INSERT INTO drizzle.__drizzle_migrations VALUES (6, '582135c335968083eaac092b312d7ef8795b00e7e43a4135dd59c53988f3c17a', 1795739574187);
INSERT INTO drizzle.__drizzle_migrations VALUES (7, '8222055e7a9aa4a114f70c62a40fbf5182153844a22af24d99f00826c5ba5599', 1795748867527);


--
-- Data for Name: antenna; Type: TABLE DATA; Schema: public; Owner: -
--

INSERT INTO public.antenna VALUES ('levanter-30', 'Levanter Thirty', '{"id": "levanter-30", "form": "horn", "name": "Levanter Thirty", "sizeMm": {"depth": 230, "width": 190, "height": 190}, "gainDbi": 15.5, "bandsMhz": [{"low": 5150, "high": 5850}], "priceEur": 89, "weightKg": 1.1, "connector": "N female", "maxPowerW": 10, "diameterMm": null, "windAreaM2": 0.036, "crossPolarDb": 25, "polarisation": "dual slant +45/-45", "frontToBackDb": 28, "connectorCount": 2, "poleDiameterMm": {"low": 30, "high": 75}, "firstSideLobeDb": -25, "fixedDowntiltDeg": 0, "mechanicalTiltDeg": 0, "azimuthBeamwidthDeg": 30, "elevationBeamwidthDeg": 30}', 'catalogue', 1, '2026-11-27 06:18:34.171135+00', '2026-11-27 06:18:34.171135+00', NULL, NULL);


--
-- Data for Name: basemap; Type: TABLE DATA; Schema: public; Owner: -
--

INSERT INTO public.basemap VALUES ('0b73458c-74f0-41e7-a77a-4411630746c8', 'a8d2d758-1bf2-4e47-b2ea-fd4f96e0ed76', 'xyz', 'Own map', 'http://127.0.0.1:9/{z}/{x}/{y}.png', NULL, '', 1, '2026-11-27 06:18:34.416274+00', '2026-11-27 06:18:34.416274+00', NULL);


--
-- Data for Name: beat; Type: TABLE DATA; Schema: public; Owner: -
--



--
-- Data for Name: brief; Type: TABLE DATA; Schema: public; Owner: -
--

INSERT INTO public.brief VALUES ('a8d2d758-1bf2-4e47-b2ea-fd4f96e0ed76', '{"feed": {"name": "", "upMbps": null, "downMbps": null, "freePorts": null}, "shapes": {"duct": "unknown", "chosen": null, "reason": "", "trenchPerM": 120, "suppliedApart": true, "subscriptionPerMonth": 40}, "source": {"adapter": "", "freePort": "unknown", "negotiated": "unknown"}, "contact": "", "devices": [{"id": "c", "kind": "camera", "name": "Gate", "codec": "h264", "count": 3, "scene": "usual", "users": 0, "siteId": "82cd5aec-2541-4f29-9a70-e022243aebfb", "upMbps": null, "widthPx": 1920, "downMbps": null, "heightPx": 1080, "framesPerS": 15}], "purpose": "", "customer": "Kelp Works Ltd", "recorder": "near", "inventory": [], "oldFailure": "none", "permissions": [], "wifiChannels": "", "photoRequests": [], "oldFailureNote": ""}', 2, '2026-11-27 06:18:34.483694+00', '2026-11-27 06:18:34.493133+00', NULL);


--
-- Data for Name: change; Type: TABLE DATA; Schema: public; Owner: -
--

INSERT INTO public.change VALUES (1, 'a8d2d758-1bf2-4e47-b2ea-fd4f96e0ed76', 'job', 'a8d2d758-1bf2-4e47-b2ea-fd4f96e0ed76', 'create', NULL, '{"name": "Before", "place": "Kelp Sound", "visitOn": "2026-12-03", "ruleDomain": "FCC-like", "centreLatDeg": 44, "centreLonDeg": -40, "rainRate001MmH": 28}', '2026-11-27 06:18:34.183041+00', NULL, NULL, false, NULL);
INSERT INTO public.change VALUES (2, 'a8d2d758-1bf2-4e47-b2ea-fd4f96e0ed76', 'site', 'bf4587b0-c446-47eb-b6a8-84daeb2fbd8e', 'create', NULL, '{"name": "Shed", "notes": "as found", "ticks": ["way up is safe"], "latDeg": 44, "lonDeg": -40, "mountAglM": 6, "mastCostPerM": 95, "mountMaxAglM": 9, "mountingPoints": [{"id": "g", "aglM": 5, "name": "Gable", "eastM": 2, "behind": "timber", "northM": 1, "maxAglM": 7}]}', '2026-11-27 06:18:34.207722+00', 'client-before', NULL, false, NULL);
INSERT INTO public.change VALUES (3, 'a8d2d758-1bf2-4e47-b2ea-fd4f96e0ed76', 'site', '82cd5aec-2541-4f29-9a70-e022243aebfb', 'create', NULL, '{"name": "Kiln", "notes": "as found", "ticks": ["way up is safe"], "latDeg": 44.012, "lonDeg": -40, "mountAglM": 6, "mastCostPerM": 95, "mountMaxAglM": 9, "mountingPoints": [{"id": "g", "aglM": 5, "name": "Gable", "eastM": 2, "behind": "timber", "northM": 1, "maxAglM": 7}]}', '2026-11-27 06:18:34.221673+00', 'client-before', NULL, false, NULL);
INSERT INTO public.change VALUES (4, 'a8d2d758-1bf2-4e47-b2ea-fd4f96e0ed76', 'site', '3e3338cf-89cb-4562-8eaa-ed47f3cc7770', 'create', NULL, '{"name": "Gone", "notes": "as found", "ticks": ["way up is safe"], "latDeg": 44.03, "lonDeg": -40, "mountAglM": 6, "mastCostPerM": 95, "mountMaxAglM": 9, "mountingPoints": [{"id": "g", "aglM": 5, "name": "Gable", "eastM": 2, "behind": "timber", "northM": 1, "maxAglM": 7}]}', '2026-11-27 06:18:34.235364+00', 'client-before', NULL, false, NULL);
INSERT INTO public.change VALUES (5, 'a8d2d758-1bf2-4e47-b2ea-fd4f96e0ed76', 'link', '80da2d2a-ab42-4c6c-ad42-3457ef462be2', 'create', NULL, '{"id": "80da2d2a-ab42-4c6c-ad42-3457ef462be2", "jobId": "a8d2d758-1bf2-4e47-b2ea-fd4f96e0ed76", "label": "first", "stage": "Planned", "design": {"id": "84a08435-be79-4179-8d08-db1b29865216", "name": "", "chosen": true, "linkId": "80da2d2a-ab42-4c6c-ad42-3457ef462be2", "trimsM": {}, "farPort": null, "farWall": null, "version": 1, "nearPort": null, "nearWall": null, "widthMhz": 40, "centreMhz": 5580, "createdAt": "2026-11-27T06:18:34.248Z", "deletedAt": null, "updatedAt": "2026-11-27T06:18:34.248Z", "farMountId": null, "farRadioId": "guillemot-flat", "policyOver": {}, "farPowerDbm": 11, "nearMountId": null, "nearRadioId": "guillemot-flat", "permissions": [], "farAntennaId": null, "farMountAglM": 6, "nearPowerDbm": 11, "farAimTiltDeg": null, "farWallLossDb": null, "nearAntennaId": null, "nearMountAglM": 6, "needToFarMbps": null, "nearAimTiltDeg": null, "nearWallLossDb": null, "needToNearMbps": null, "farFeederLossDb": 0, "frameShareToFar": null, "needYearPercent": 99.9, "farAimAzimuthDeg": null, "nearFeederLossDb": 0, "nearAimAzimuthDeg": null, "farConnectorLossDb": 0, "farInterferenceDbm": null, "nearConnectorLossDb": 0, "nearInterferenceDbm": null}, "number": 1, "version": 1, "createdAt": "2026-11-27T06:18:34.248Z", "deletedAt": null, "farSiteId": "82cd5aec-2541-4f29-9a70-e022243aebfb", "updatedAt": "2026-11-27T06:18:34.248Z", "groundTold": null, "nearSiteId": "bf4587b0-c446-47eb-b6a8-84daeb2fbd8e"}', '2026-11-27 06:18:34.248177+00', 'client-before', NULL, false, NULL);
INSERT INTO public.change VALUES (6, 'a8d2d758-1bf2-4e47-b2ea-fd4f96e0ed76', 'link', '80da2d2a-ab42-4c6c-ad42-3457ef462be2', 'update', '{"id": "80da2d2a-ab42-4c6c-ad42-3457ef462be2", "jobId": "a8d2d758-1bf2-4e47-b2ea-fd4f96e0ed76", "label": "first", "stage": "Planned", "number": 1, "version": 1, "createdAt": "2026-11-27T06:18:34.248Z", "deletedAt": null, "farSiteId": "82cd5aec-2541-4f29-9a70-e022243aebfb", "updatedAt": "2026-11-27T06:18:34.248Z", "groundTold": null, "nearSiteId": "bf4587b0-c446-47eb-b6a8-84daeb2fbd8e"}', '{"id": "80da2d2a-ab42-4c6c-ad42-3457ef462be2", "jobId": "a8d2d758-1bf2-4e47-b2ea-fd4f96e0ed76", "label": "first", "stage": "Planned", "number": 1, "version": 2, "createdAt": "2026-11-27T06:18:34.248Z", "deletedAt": null, "farSiteId": "82cd5aec-2541-4f29-9a70-e022243aebfb", "updatedAt": "2026-11-27T06:18:34.274Z", "groundTold": {"kind": "level", "points": [{"distanceM": 0, "heightAmslM": 12}], "sigmaM": 0.3}, "nearSiteId": "bf4587b0-c446-47eb-b6a8-84daeb2fbd8e"}', '2026-11-27 06:18:34.274515+00', 'client-before', NULL, false, NULL);
INSERT INTO public.change VALUES (7, 'a8d2d758-1bf2-4e47-b2ea-fd4f96e0ed76', 'design', 'f16557d5-74bd-4683-889f-b334f3c1f45e', 'create', NULL, '{"id": "f16557d5-74bd-4683-889f-b334f3c1f45e", "name": "B", "chosen": false, "linkId": "80da2d2a-ab42-4c6c-ad42-3457ef462be2", "trimsM": {}, "farPort": null, "farWall": null, "version": 1, "nearPort": null, "nearWall": null, "widthMhz": 40, "centreMhz": 5580, "createdAt": "2026-11-27T06:18:34.284Z", "deletedAt": null, "updatedAt": "2026-11-27T06:18:34.284Z", "farMountId": null, "farRadioId": "guillemot-flat", "policyOver": {}, "farPowerDbm": 11, "nearMountId": null, "nearRadioId": "guillemot-flat", "permissions": [], "farAntennaId": null, "farMountAglM": 6, "nearPowerDbm": 11, "farAimTiltDeg": null, "farWallLossDb": null, "nearAntennaId": null, "nearMountAglM": 6, "needToFarMbps": null, "nearAimTiltDeg": null, "nearWallLossDb": null, "needToNearMbps": null, "farFeederLossDb": 0, "frameShareToFar": null, "needYearPercent": 99.9, "farAimAzimuthDeg": null, "nearFeederLossDb": 0, "nearAimAzimuthDeg": null, "farConnectorLossDb": 0, "farInterferenceDbm": null, "nearConnectorLossDb": 0, "nearInterferenceDbm": null}', '2026-11-27 06:18:34.284264+00', 'client-before', NULL, false, NULL);
INSERT INTO public.change VALUES (8, 'a8d2d758-1bf2-4e47-b2ea-fd4f96e0ed76', 'design', '84a08435-be79-4179-8d08-db1b29865216', 'update', '{"id": "84a08435-be79-4179-8d08-db1b29865216", "name": "", "chosen": true, "linkId": "80da2d2a-ab42-4c6c-ad42-3457ef462be2", "trimsM": {}, "farPort": null, "farWall": null, "version": 1, "nearPort": null, "nearWall": null, "widthMhz": 40, "centreMhz": 5580, "createdAt": "2026-11-27T06:18:34.248Z", "deletedAt": null, "updatedAt": "2026-11-27T06:18:34.248Z", "farMountId": null, "farRadioId": "guillemot-flat", "policyOver": {}, "farPowerDbm": 11, "nearMountId": null, "nearRadioId": "guillemot-flat", "permissions": [], "farAntennaId": null, "farMountAglM": 6, "nearPowerDbm": 11, "farAimTiltDeg": null, "farWallLossDb": null, "nearAntennaId": null, "nearMountAglM": 6, "needToFarMbps": null, "nearAimTiltDeg": null, "nearWallLossDb": null, "needToNearMbps": null, "farFeederLossDb": 0, "frameShareToFar": null, "needYearPercent": 99.9, "farAimAzimuthDeg": null, "nearFeederLossDb": 0, "nearAimAzimuthDeg": null, "farConnectorLossDb": 0, "farInterferenceDbm": null, "nearConnectorLossDb": 0, "nearInterferenceDbm": null}', '{"id": "84a08435-be79-4179-8d08-db1b29865216", "name": "", "chosen": true, "linkId": "80da2d2a-ab42-4c6c-ad42-3457ef462be2", "trimsM": {}, "farPort": null, "farWall": null, "version": 2, "nearPort": null, "nearWall": null, "widthMhz": 40, "centreMhz": 5580, "createdAt": "2026-11-27T06:18:34.248Z", "deletedAt": null, "updatedAt": "2026-11-27T06:18:34.312Z", "farMountId": null, "farRadioId": "guillemot-flat", "policyOver": {}, "farPowerDbm": 11, "nearMountId": null, "nearRadioId": "guillemot-flat", "permissions": [{"from": null, "kind": "licence", "note": "", "place": "Sound", "until": "2027-12-31", "holder": "Kelp Works", "lowMhz": 5560, "number": "K-7", "highMhz": 5600, "maxEirpDbm": 30}], "farAntennaId": null, "farMountAglM": 6, "nearPowerDbm": 11, "farAimTiltDeg": null, "farWallLossDb": null, "nearAntennaId": null, "nearMountAglM": 7.5, "needToFarMbps": null, "nearAimTiltDeg": null, "nearWallLossDb": null, "needToNearMbps": null, "farFeederLossDb": 0, "frameShareToFar": null, "needYearPercent": 99.9, "farAimAzimuthDeg": null, "nearFeederLossDb": 0, "nearAimAzimuthDeg": null, "farConnectorLossDb": 0, "farInterferenceDbm": null, "nearConnectorLossDb": 0, "nearInterferenceDbm": null}', '2026-11-27 06:18:34.312198+00', 'client-before', NULL, false, NULL);
INSERT INTO public.change VALUES (9, 'a8d2d758-1bf2-4e47-b2ea-fd4f96e0ed76', 'obstacle', 'a77b7cdb-164c-4b91-adf3-cb7f2595eb93', 'create', NULL, '{"id": "a77b7cdb-164c-4b91-adf3-cb7f2595eb93", "kind": "building", "leaf": null, "name": "House", "jobId": "a8d2d758-1bf2-4e47-b2ea-fd4f96e0ed76", "source": "drawn", "heightM": 7, "outline": "{\"type\":\"Polygon\",\"coordinates\":[[[-40,44.005],[-39.9991,44.005],[-39.9991,44.0059],[-40,44.0059],[-40,44.005]],[[-39.9997,44.0053],[-39.9994,44.0053],[-39.9994,44.0056],[-39.9997,44.0056],[-39.9997,44.0053]]]}", "species": null, "version": 1, "baseAmslM": 10, "deletedAt": null, "crownBaseM": 0, "freeBelowM": 0, "surveyedOn": "2026-01-01", "heightSigmaM": 0.5, "heightSource": "typed", "growthMPerYear": 0}', '2026-11-27 06:18:34.328543+00', 'client-before', NULL, false, NULL);
INSERT INTO public.change VALUES (10, 'a8d2d758-1bf2-4e47-b2ea-fd4f96e0ed76', 'obstacle', '1554a0a3-1c1e-4e36-b3ba-1fe450ef9023', 'create', NULL, '{"id": "1554a0a3-1c1e-4e36-b3ba-1fe450ef9023", "kind": "tree", "leaf": "deciduous", "name": "Ash", "jobId": "a8d2d758-1bf2-4e47-b2ea-fd4f96e0ed76", "source": "drawn", "heightM": 9, "outline": "{\"type\":\"Polygon\",\"coordinates\":[[[-40.0005,44.007],[-40.0003,44.007],[-40.0004,44.0072],[-40.0005,44.007]]]}", "species": "ash", "version": 1, "baseAmslM": null, "deletedAt": null, "crownBaseM": 3, "freeBelowM": 0, "surveyedOn": "2026-01-01", "heightSigmaM": 1, "heightSource": "typed", "growthMPerYear": 0.3}', '2026-11-27 06:18:34.361414+00', 'client-before', NULL, false, NULL);
INSERT INTO public.change VALUES (11, 'a8d2d758-1bf2-4e47-b2ea-fd4f96e0ed76', 'design', '84a08435-be79-4179-8d08-db1b29865216', 'update', '{"id": "84a08435-be79-4179-8d08-db1b29865216", "name": "", "chosen": true, "linkId": "80da2d2a-ab42-4c6c-ad42-3457ef462be2", "trimsM": {}, "farPort": null, "farWall": null, "version": 2, "nearPort": null, "nearWall": null, "widthMhz": 40, "centreMhz": 5580, "createdAt": "2026-11-27T06:18:34.248Z", "deletedAt": null, "updatedAt": "2026-11-27T06:18:34.312Z", "farMountId": null, "farRadioId": "guillemot-flat", "policyOver": {}, "farPowerDbm": 11, "nearMountId": null, "nearRadioId": "guillemot-flat", "permissions": [{"from": null, "kind": "licence", "note": "", "place": "Sound", "until": "2027-12-31", "holder": "Kelp Works", "lowMhz": 5560, "number": "K-7", "highMhz": 5600, "maxEirpDbm": 30}], "farAntennaId": null, "farMountAglM": 6, "nearPowerDbm": 11, "farAimTiltDeg": null, "farWallLossDb": null, "nearAntennaId": null, "nearMountAglM": 7.5, "needToFarMbps": null, "nearAimTiltDeg": null, "nearWallLossDb": null, "needToNearMbps": null, "farFeederLossDb": 0, "frameShareToFar": null, "needYearPercent": 99.9, "farAimAzimuthDeg": null, "nearFeederLossDb": 0, "nearAimAzimuthDeg": null, "farConnectorLossDb": 0, "farInterferenceDbm": null, "nearConnectorLossDb": 0, "nearInterferenceDbm": null}', '{"id": "84a08435-be79-4179-8d08-db1b29865216", "name": "", "chosen": true, "linkId": "80da2d2a-ab42-4c6c-ad42-3457ef462be2", "trimsM": {"1554a0a3-1c1e-4e36-b3ba-1fe450ef9023": 7}, "farPort": null, "farWall": null, "version": 3, "nearPort": null, "nearWall": null, "widthMhz": 40, "centreMhz": 5580, "createdAt": "2026-11-27T06:18:34.248Z", "deletedAt": null, "updatedAt": "2026-11-27T06:18:34.371Z", "farMountId": null, "farRadioId": "guillemot-flat", "policyOver": {}, "farPowerDbm": 11, "nearMountId": null, "nearRadioId": "guillemot-flat", "permissions": [{"from": null, "kind": "licence", "note": "", "place": "Sound", "until": "2027-12-31", "holder": "Kelp Works", "lowMhz": 5560, "number": "K-7", "highMhz": 5600, "maxEirpDbm": 30}], "farAntennaId": null, "farMountAglM": 6, "nearPowerDbm": 11, "farAimTiltDeg": null, "farWallLossDb": null, "nearAntennaId": null, "nearMountAglM": 7.5, "needToFarMbps": null, "nearAimTiltDeg": null, "nearWallLossDb": null, "needToNearMbps": null, "farFeederLossDb": 0, "frameShareToFar": null, "needYearPercent": 99.9, "farAimAzimuthDeg": null, "nearFeederLossDb": 0, "nearAimAzimuthDeg": null, "farConnectorLossDb": 0, "farInterferenceDbm": null, "nearConnectorLossDb": 0, "nearInterferenceDbm": null}', '2026-11-27 06:18:34.37134+00', 'client-before', NULL, false, NULL);
INSERT INTO public.change VALUES (12, 'a8d2d758-1bf2-4e47-b2ea-fd4f96e0ed76', 'feature', '3a45ef3c-fbaf-4b0d-96e4-62b4d1906587', 'create', NULL, '{"id": "3a45ef3c-fbaf-4b0d-96e4-62b4d1906587", "name": "Kelp Ridge", "jobId": "a8d2d758-1bf2-4e47-b2ea-fd4f96e0ed76", "shape": "{\"type\":\"LineString\",\"coordinates\":[[-40.002,44.005],[-39.998,44.0055]]}", "version": 1, "deletedAt": null}', '2026-11-27 06:18:34.386806+00', 'client-before', NULL, false, NULL);
INSERT INTO public.change VALUES (13, 'a8d2d758-1bf2-4e47-b2ea-fd4f96e0ed76', 'photo', '7e47421f-d719-49e7-bd17-0ce61792df2b', 'create', NULL, '{"id": "7e47421f-d719-49e7-bd17-0ce61792df2b", "mime": "image/jpeg", "name": "photo", "note": "to the kiln", "jobId": "a8d2d758-1bf2-4e47-b2ea-fd4f96e0ed76", "siteId": "bf4587b0-c446-47eb-b6a8-84daeb2fbd8e", "takenOn": "2026-07-15", "version": 1, "createdAt": "2026-11-27T06:18:34.396Z", "deletedAt": null, "fromWhere": "antenna height", "updatedAt": "2026-11-27T06:18:34.396Z", "bearingDeg": 10}', '2026-11-27 06:18:34.396676+00', 'client-before', NULL, false, NULL);
INSERT INTO public.change VALUES (14, 'a8d2d758-1bf2-4e47-b2ea-fd4f96e0ed76', 'photo', '7e47421f-d719-49e7-bd17-0ce61792df2b', 'update', '{"id": "7e47421f-d719-49e7-bd17-0ce61792df2b", "mime": "image/jpeg", "name": "photo", "note": "to the kiln", "jobId": "a8d2d758-1bf2-4e47-b2ea-fd4f96e0ed76", "siteId": "bf4587b0-c446-47eb-b6a8-84daeb2fbd8e", "takenOn": "2026-07-15", "version": 1, "createdAt": "2026-11-27T06:18:34.396Z", "deletedAt": null, "fromWhere": "antenna height", "updatedAt": "2026-11-27T06:18:34.396Z", "bearingDeg": 10}', '{"id": "7e47421f-d719-49e7-bd17-0ce61792df2b", "mime": "image/jpeg", "name": "photo", "note": "towards the kiln", "jobId": "a8d2d758-1bf2-4e47-b2ea-fd4f96e0ed76", "siteId": "bf4587b0-c446-47eb-b6a8-84daeb2fbd8e", "takenOn": "2026-07-15", "version": 2, "createdAt": "2026-11-27T06:18:34.396Z", "deletedAt": null, "fromWhere": "antenna height", "updatedAt": "2026-11-27T06:18:34.396Z", "bearingDeg": 10}', '2026-11-27 06:18:34.409159+00', 'client-before', NULL, false, NULL);
INSERT INTO public.change VALUES (15, 'a8d2d758-1bf2-4e47-b2ea-fd4f96e0ed76', 'site', '23dc364a-7610-428b-a6da-b210d1dcdf80', 'create', NULL, '{"name": "Relay", "latDeg": 44.006, "lonDeg": -40.002, "mountAglM": 12, "structure": "relay: mast, power and leave still to be found"}', '2026-11-27 06:18:34.422073+00', 'client-before', NULL, false, '9afc9103-00f0-4adb-ada4-14e2f1a464b5');
INSERT INTO public.change VALUES (16, 'a8d2d758-1bf2-4e47-b2ea-fd4f96e0ed76', 'link', '804d416b-3265-49bc-875a-0ac80659de77', 'create', NULL, '{"id": "804d416b-3265-49bc-875a-0ac80659de77", "jobId": "a8d2d758-1bf2-4e47-b2ea-fd4f96e0ed76", "label": "relay", "stage": "Planned", "design": {"id": "18bef1b1-3244-454e-8775-499d61c4f1f8", "name": "", "chosen": true, "linkId": "804d416b-3265-49bc-875a-0ac80659de77", "trimsM": {}, "farPort": null, "farWall": null, "version": 1, "nearPort": null, "nearWall": null, "widthMhz": 40, "centreMhz": 5580, "createdAt": "2026-11-27T06:18:34.422Z", "deletedAt": null, "updatedAt": "2026-11-27T06:18:34.422Z", "farMountId": null, "farRadioId": "guillemot-flat", "policyOver": {}, "farPowerDbm": 11, "nearMountId": null, "nearRadioId": "guillemot-flat", "permissions": [], "farAntennaId": null, "farMountAglM": 12, "nearPowerDbm": 11, "farAimTiltDeg": null, "farWallLossDb": null, "nearAntennaId": null, "nearMountAglM": 7.5, "needToFarMbps": null, "nearAimTiltDeg": null, "nearWallLossDb": null, "needToNearMbps": null, "farFeederLossDb": 0, "frameShareToFar": null, "needYearPercent": 99.9, "farAimAzimuthDeg": null, "nearFeederLossDb": 0, "nearAimAzimuthDeg": null, "farConnectorLossDb": 0, "farInterferenceDbm": null, "nearConnectorLossDb": 0, "nearInterferenceDbm": null}, "number": 2, "version": 1, "createdAt": "2026-11-27T06:18:34.422Z", "deletedAt": null, "farSiteId": "23dc364a-7610-428b-a6da-b210d1dcdf80", "updatedAt": "2026-11-27T06:18:34.422Z", "groundTold": null, "nearSiteId": "bf4587b0-c446-47eb-b6a8-84daeb2fbd8e"}', '2026-11-27 06:18:34.422073+00', 'client-before', NULL, false, '9afc9103-00f0-4adb-ada4-14e2f1a464b5');
INSERT INTO public.change VALUES (17, 'a8d2d758-1bf2-4e47-b2ea-fd4f96e0ed76', 'link', '825b3582-da64-4085-89aa-9c7fec75255a', 'create', NULL, '{"id": "825b3582-da64-4085-89aa-9c7fec75255a", "jobId": "a8d2d758-1bf2-4e47-b2ea-fd4f96e0ed76", "label": "relay", "stage": "Planned", "design": {"id": "2141cbbe-3e77-418a-9a98-7e6e4ce570fa", "name": "", "chosen": true, "linkId": "825b3582-da64-4085-89aa-9c7fec75255a", "trimsM": {}, "farPort": null, "farWall": null, "version": 1, "nearPort": null, "nearWall": null, "widthMhz": 40, "centreMhz": 5580, "createdAt": "2026-11-27T06:18:34.422Z", "deletedAt": null, "updatedAt": "2026-11-27T06:18:34.422Z", "farMountId": null, "farRadioId": "guillemot-flat", "policyOver": {}, "farPowerDbm": 11, "nearMountId": null, "nearRadioId": "guillemot-flat", "permissions": [], "farAntennaId": null, "farMountAglM": 6, "nearPowerDbm": 11, "farAimTiltDeg": null, "farWallLossDb": null, "nearAntennaId": null, "nearMountAglM": 12, "needToFarMbps": null, "nearAimTiltDeg": null, "nearWallLossDb": null, "needToNearMbps": null, "farFeederLossDb": 0, "frameShareToFar": null, "needYearPercent": 99.9, "farAimAzimuthDeg": null, "nearFeederLossDb": 0, "nearAimAzimuthDeg": null, "farConnectorLossDb": 0, "farInterferenceDbm": null, "nearConnectorLossDb": 0, "nearInterferenceDbm": null}, "number": 3, "version": 1, "createdAt": "2026-11-27T06:18:34.422Z", "deletedAt": null, "farSiteId": "82cd5aec-2541-4f29-9a70-e022243aebfb", "updatedAt": "2026-11-27T06:18:34.422Z", "groundTold": null, "nearSiteId": "23dc364a-7610-428b-a6da-b210d1dcdf80"}', '2026-11-27 06:18:34.422073+00', 'client-before', NULL, false, '9afc9103-00f0-4adb-ada4-14e2f1a464b5');
INSERT INTO public.change VALUES (18, 'a8d2d758-1bf2-4e47-b2ea-fd4f96e0ed76', 'brief', 'a8d2d758-1bf2-4e47-b2ea-fd4f96e0ed76', 'update', '{"doc": {}, "name": "Brief"}', '{"doc": {"feed": {"name": "", "upMbps": null, "downMbps": null, "freePorts": null}, "shapes": {"duct": "unknown", "chosen": null, "reason": "", "trenchPerM": 120, "suppliedApart": true, "subscriptionPerMonth": 40}, "source": {"adapter": "", "freePort": "unknown", "negotiated": "unknown"}, "contact": "", "devices": [{"id": "c", "kind": "camera", "name": "Gate", "codec": "h264", "count": 2, "scene": "usual", "users": 0, "siteId": "82cd5aec-2541-4f29-9a70-e022243aebfb", "upMbps": null, "widthPx": 1920, "downMbps": null, "heightPx": 1080, "framesPerS": 15}], "purpose": "", "customer": "Kelp Works", "recorder": "near", "inventory": [], "oldFailure": "none", "permissions": [], "wifiChannels": "", "photoRequests": [], "oldFailureNote": ""}, "name": "Brief"}', '2026-11-27 06:18:34.483694+00', 'client-before', NULL, false, NULL);
INSERT INTO public.change VALUES (19, 'a8d2d758-1bf2-4e47-b2ea-fd4f96e0ed76', 'brief', 'a8d2d758-1bf2-4e47-b2ea-fd4f96e0ed76', 'update', '{"doc": {"feed": {"name": "", "upMbps": null, "downMbps": null, "freePorts": null}, "shapes": {"duct": "unknown", "chosen": null, "reason": "", "trenchPerM": 120, "suppliedApart": true, "subscriptionPerMonth": 40}, "source": {"adapter": "", "freePort": "unknown", "negotiated": "unknown"}, "contact": "", "devices": [{"id": "c", "kind": "camera", "name": "Gate", "codec": "h264", "count": 2, "scene": "usual", "users": 0, "siteId": "82cd5aec-2541-4f29-9a70-e022243aebfb", "upMbps": null, "widthPx": 1920, "downMbps": null, "heightPx": 1080, "framesPerS": 15}], "purpose": "", "customer": "Kelp Works", "recorder": "near", "inventory": [], "oldFailure": "none", "permissions": [], "wifiChannels": "", "photoRequests": [], "oldFailureNote": ""}, "name": "Brief"}', '{"doc": {"feed": {"name": "", "upMbps": null, "downMbps": null, "freePorts": null}, "shapes": {"duct": "unknown", "chosen": null, "reason": "", "trenchPerM": 120, "suppliedApart": true, "subscriptionPerMonth": 40}, "source": {"adapter": "", "freePort": "unknown", "negotiated": "unknown"}, "contact": "", "devices": [{"id": "c", "kind": "camera", "name": "Gate", "codec": "h264", "count": 3, "scene": "usual", "users": 0, "siteId": "82cd5aec-2541-4f29-9a70-e022243aebfb", "upMbps": null, "widthPx": 1920, "downMbps": null, "heightPx": 1080, "framesPerS": 15}], "purpose": "", "customer": "Kelp Works Ltd", "recorder": "near", "inventory": [], "oldFailure": "none", "permissions": [], "wifiChannels": "", "photoRequests": [], "oldFailureNote": ""}, "name": "Brief"}', '2026-11-27 06:18:34.493133+00', 'client-before', NULL, false, NULL);
INSERT INTO public.change VALUES (20, 'a8d2d758-1bf2-4e47-b2ea-fd4f96e0ed76', 'job', 'a8d2d758-1bf2-4e47-b2ea-fd4f96e0ed76', 'update', '{"id": "a8d2d758-1bf2-4e47-b2ea-fd4f96e0ed76", "name": "Before", "place": "Kelp Sound", "stage": "Enquiry", "kLow20": 0.6, "kLow50": 0.8, "number": 1, "kFactor": 1.3333333333333333, "kLow100": 0.9, "version": 1, "visitOn": "2026-12-03", "marginDb": 10, "revision": 20, "createdAt": "2026-11-27T06:18:34.183Z", "deletedAt": null, "freeShare": 0.3, "leafState": "in", "updatedAt": "2026-11-27T06:18:34.493Z", "ruleDomain": "FCC-like", "tideRangeM": 0, "treePolicy": "strict", "climateZone": "temperate", "pressureHpa": 1013, "centreLatDeg": 44, "centreLonDeg": -40, "horizonYears": 5, "roughnessSaM": null, "temperatureC": 10, "waterSurface": "auto", "rainRate001MmH": 28, "clearancePolicy": "sixty", "waterRoughnessM": 0.05, "throughputSchool": "headroom", "vapourDensityGm3": 7.5, "gradientDn1NPerKm": -250}', '{"tideRangeM": 3}', '2026-11-27 06:18:34.500349+00', 'client-before', NULL, false, NULL);
INSERT INTO public.change VALUES (21, 'a8d2d758-1bf2-4e47-b2ea-fd4f96e0ed76', 'site', '3e3338cf-89cb-4562-8eaa-ed47f3cc7770', 'delete', '{"id": "3e3338cf-89cb-4562-8eaa-ed47f3cc7770", "name": "Gone", "jobId": "a8d2d758-1bf2-4e47-b2ea-fd4f96e0ed76", "notes": "as found", "owner": "", "power": "", "ticks": ["way up is safe"], "access": "", "latDeg": 44.03, "lonDeg": -40, "version": 1, "importId": null, "material": "", "createdAt": "2026-11-27T06:18:34.235Z", "deletedAt": null, "mountAglM": 6, "structure": "", "updatedAt": "2026-11-27T06:18:34.235Z", "cableEntry": "", "mastCostPerM": 95, "mountMaxAglM": 9, "mountingPoints": [{"id": "g", "aglM": 5, "name": "Gable", "eastM": 2, "behind": "timber", "northM": 1, "maxAglM": 7}]}', '{"id": "3e3338cf-89cb-4562-8eaa-ed47f3cc7770", "name": "Gone", "jobId": "a8d2d758-1bf2-4e47-b2ea-fd4f96e0ed76", "notes": "as found", "owner": "", "power": "", "ticks": ["way up is safe"], "access": "", "latDeg": 44.03, "lonDeg": -40, "version": 2, "importId": null, "material": "", "createdAt": "2026-11-27T06:18:34.235Z", "deletedAt": "2026-11-27T06:18:34.515Z", "mountAglM": 6, "structure": "", "updatedAt": "2026-11-27T06:18:34.515Z", "cableEntry": "", "mastCostPerM": 95, "mountMaxAglM": 9, "mountingPoints": [{"id": "g", "aglM": 5, "name": "Gable", "eastM": 2, "behind": "timber", "northM": 1, "maxAglM": 7}]}', '2026-11-27 06:18:34.515508+00', 'client-before', NULL, false, NULL);
INSERT INTO public.change VALUES (22, 'a8d2d758-1bf2-4e47-b2ea-fd4f96e0ed76', 'site', 'bf4587b0-c446-47eb-b6a8-84daeb2fbd8e', 'update', '{"id": "bf4587b0-c446-47eb-b6a8-84daeb2fbd8e", "name": "Shed", "jobId": "a8d2d758-1bf2-4e47-b2ea-fd4f96e0ed76", "notes": "as found", "owner": "", "power": "", "ticks": ["way up is safe"], "access": "", "latDeg": 44, "lonDeg": -40, "version": 1, "importId": null, "material": "", "createdAt": "2026-11-27T06:18:34.207Z", "deletedAt": null, "mountAglM": 6, "structure": "", "updatedAt": "2026-11-27T06:18:34.207Z", "cableEntry": "", "mastCostPerM": 95, "mountMaxAglM": 9, "mountingPoints": [{"id": "g", "aglM": 5, "name": "Gable", "eastM": 2, "behind": "timber", "northM": 1, "maxAglM": 7}]}', '{"id": "bf4587b0-c446-47eb-b6a8-84daeb2fbd8e", "name": "Shed", "jobId": "a8d2d758-1bf2-4e47-b2ea-fd4f96e0ed76", "notes": "as found", "owner": "", "power": "", "ticks": ["way up is safe"], "access": "", "latDeg": 44, "lonDeg": -40, "version": 2, "importId": null, "material": "", "createdAt": "2026-11-27T06:18:34.207Z", "deletedAt": null, "mountAglM": 6.5, "structure": "", "updatedAt": "2026-11-27T06:18:34.525Z", "cableEntry": "", "mastCostPerM": 95, "mountMaxAglM": 9, "mountingPoints": [{"id": "g", "aglM": 5, "name": "Gable", "eastM": 2, "behind": "timber", "northM": 1, "maxAglM": 7}]}', '2026-11-27 06:18:34.525095+00', 'client-before', NULL, false, NULL);
INSERT INTO public.change VALUES (23, 'a8d2d758-1bf2-4e47-b2ea-fd4f96e0ed76', 'obstacle', 'a77b7cdb-164c-4b91-adf3-cb7f2595eb93', 'update', '{"id": "a77b7cdb-164c-4b91-adf3-cb7f2595eb93", "kind": "building", "leaf": null, "name": "House", "jobId": "a8d2d758-1bf2-4e47-b2ea-fd4f96e0ed76", "source": "drawn", "heightM": 7, "outline": "{\"type\":\"Polygon\",\"coordinates\":[[[-40,44.005],[-39.9991,44.005],[-39.9991,44.0059],[-40,44.0059],[-40,44.005]],[[-39.9997,44.0053],[-39.9994,44.0053],[-39.9994,44.0056],[-39.9997,44.0056],[-39.9997,44.0053]]]}", "species": null, "version": 1, "baseAmslM": 10, "deletedAt": null, "crownBaseM": 0, "freeBelowM": 0, "surveyedOn": "2026-01-01", "heightSigmaM": 0.5, "heightSource": "typed", "growthMPerYear": 0}', '{"id": "a77b7cdb-164c-4b91-adf3-cb7f2595eb93", "kind": "building", "leaf": null, "name": "House", "jobId": "a8d2d758-1bf2-4e47-b2ea-fd4f96e0ed76", "source": "drawn", "heightM": 8, "outline": "{\"type\":\"Polygon\",\"coordinates\":[[[-40,44.005],[-39.9991,44.005],[-39.9991,44.0058],[-40,44.0058],[-40,44.005]]]}", "species": null, "version": 2, "baseAmslM": 10, "deletedAt": null, "crownBaseM": 0, "freeBelowM": 0, "surveyedOn": "2026-01-01", "heightSigmaM": 0.5, "heightSource": "typed", "growthMPerYear": 0}', '2026-11-27 06:18:34.538293+00', 'client-before', NULL, false, NULL);
INSERT INTO public.change VALUES (24, 'a8d2d758-1bf2-4e47-b2ea-fd4f96e0ed76', 'obstacle', '1554a0a3-1c1e-4e36-b3ba-1fe450ef9023', 'delete', '{"id": "1554a0a3-1c1e-4e36-b3ba-1fe450ef9023", "kind": "tree", "leaf": "deciduous", "name": "Ash", "jobId": "a8d2d758-1bf2-4e47-b2ea-fd4f96e0ed76", "source": "drawn", "heightM": 9, "outline": "{\"type\":\"Polygon\",\"coordinates\":[[[-40.0005,44.007],[-40.0003,44.007],[-40.0004,44.0072],[-40.0005,44.007]]]}", "species": "ash", "version": 1, "baseAmslM": null, "deletedAt": null, "crownBaseM": 3, "freeBelowM": 0, "surveyedOn": "2026-01-01", "heightSigmaM": 1, "heightSource": "typed", "growthMPerYear": 0.3}', '{"id": "1554a0a3-1c1e-4e36-b3ba-1fe450ef9023", "kind": "tree", "leaf": "deciduous", "name": "Ash", "jobId": "a8d2d758-1bf2-4e47-b2ea-fd4f96e0ed76", "source": "drawn", "heightM": 9, "outline": "{\"type\":\"Polygon\",\"coordinates\":[[[-40.0005,44.007],[-40.0003,44.007],[-40.0004,44.0072],[-40.0005,44.007]]]}", "species": "ash", "version": 2, "baseAmslM": null, "deletedAt": "2026-11-27 06:18:34.546459+00", "crownBaseM": 3, "freeBelowM": 0, "surveyedOn": "2026-01-01", "heightSigmaM": 1, "heightSource": "typed", "growthMPerYear": 0.3}', '2026-11-27 06:18:34.546459+00', 'client-before', NULL, false, NULL);
INSERT INTO public.change VALUES (26, 'a8d2d758-1bf2-4e47-b2ea-fd4f96e0ed76', 'site', '82cd5aec-2541-4f29-9a70-e022243aebfb', 'undo', NULL, NULL, '2026-11-27 06:18:34.564284+00', 'client-before', 25, false, NULL);
INSERT INTO public.change VALUES (25, 'a8d2d758-1bf2-4e47-b2ea-fd4f96e0ed76', 'site', '82cd5aec-2541-4f29-9a70-e022243aebfb', 'update', '{"id": "82cd5aec-2541-4f29-9a70-e022243aebfb", "name": "Kiln", "jobId": "a8d2d758-1bf2-4e47-b2ea-fd4f96e0ed76", "notes": "as found", "owner": "", "power": "", "ticks": ["way up is safe"], "access": "", "latDeg": 44.012, "lonDeg": -40, "version": 1, "importId": null, "material": "", "createdAt": "2026-11-27T06:18:34.221Z", "deletedAt": null, "mountAglM": 6, "structure": "", "updatedAt": "2026-11-27T06:18:34.221Z", "cableEntry": "", "mastCostPerM": 95, "mountMaxAglM": 9, "mountingPoints": [{"id": "g", "aglM": 5, "name": "Gable", "eastM": 2, "behind": "timber", "northM": 1, "maxAglM": 7}]}', '{"id": "82cd5aec-2541-4f29-9a70-e022243aebfb", "name": "Kiln House", "jobId": "a8d2d758-1bf2-4e47-b2ea-fd4f96e0ed76", "notes": "as found", "owner": "", "power": "", "ticks": ["way up is safe"], "access": "", "latDeg": 44.012, "lonDeg": -40, "version": 2, "importId": null, "material": "", "createdAt": "2026-11-27T06:18:34.221Z", "deletedAt": null, "mountAglM": 6, "structure": "", "updatedAt": "2026-11-27T06:18:34.553Z", "cableEntry": "", "mastCostPerM": 95, "mountMaxAglM": 9, "mountingPoints": [{"id": "g", "aglM": 5, "name": "Gable", "eastM": 2, "behind": "timber", "northM": 1, "maxAglM": 7}]}', '2026-11-27 06:18:34.553588+00', 'client-before', NULL, true, NULL);


--
-- Data for Name: design; Type: TABLE DATA; Schema: public; Owner: -
--

INSERT INTO public.design VALUES ('f16557d5-74bd-4683-889f-b334f3c1f45e', '80da2d2a-ab42-4c6c-ad42-3457ef462be2', false, 6, 6, 'guillemot-flat', 'guillemot-flat', NULL, NULL, 11, 11, 0, 0, 5580, 40, NULL, NULL, '{}', 1, '2026-11-27 06:18:34.284264+00', '2026-11-27 06:18:34.284264+00', NULL, 0, 0, NULL, NULL, NULL, NULL, NULL, NULL, NULL, NULL, NULL, NULL, NULL, NULL, NULL, 'B', '{}', 99.9, NULL, NULL, '[]');
INSERT INTO public.design VALUES ('84a08435-be79-4179-8d08-db1b29865216', '80da2d2a-ab42-4c6c-ad42-3457ef462be2', true, 7.5, 6, 'guillemot-flat', 'guillemot-flat', NULL, NULL, 11, 11, 0, 0, 5580, 40, NULL, NULL, '{"1554a0a3-1c1e-4e36-b3ba-1fe450ef9023": 7}', 3, '2026-11-27 06:18:34.248177+00', '2026-11-27 06:18:34.37134+00', NULL, 0, 0, NULL, NULL, NULL, NULL, NULL, NULL, NULL, NULL, NULL, NULL, NULL, NULL, NULL, '', '{}', 99.9, NULL, NULL, '[{"from": null, "kind": "licence", "note": "", "place": "Sound", "until": "2027-12-31", "holder": "Kelp Works", "lowMhz": 5560, "number": "K-7", "highMhz": 5600, "maxEirpDbm": 30}]');
INSERT INTO public.design VALUES ('18bef1b1-3244-454e-8775-499d61c4f1f8', '804d416b-3265-49bc-875a-0ac80659de77', true, 7.5, 12, 'guillemot-flat', 'guillemot-flat', NULL, NULL, 11, 11, 0, 0, 5580, 40, NULL, NULL, '{}', 1, '2026-11-27 06:18:34.422073+00', '2026-11-27 06:18:34.422073+00', NULL, 0, 0, NULL, NULL, NULL, NULL, NULL, NULL, NULL, NULL, NULL, NULL, NULL, NULL, NULL, '', '{}', 99.9, NULL, NULL, '[]');
INSERT INTO public.design VALUES ('2141cbbe-3e77-418a-9a98-7e6e4ce570fa', '825b3582-da64-4085-89aa-9c7fec75255a', true, 12, 6, 'guillemot-flat', 'guillemot-flat', NULL, NULL, 11, 11, 0, 0, 5580, 40, NULL, NULL, '{}', 1, '2026-11-27 06:18:34.422073+00', '2026-11-27 06:18:34.422073+00', NULL, 0, 0, NULL, NULL, NULL, NULL, NULL, NULL, NULL, NULL, NULL, NULL, NULL, NULL, NULL, '', '{}', 99.9, NULL, NULL, '[]');


--
-- Data for Name: feature; Type: TABLE DATA; Schema: public; Owner: -
--

INSERT INTO public.feature VALUES ('3a45ef3c-fbaf-4b0d-96e4-62b4d1906587', 'a8d2d758-1bf2-4e47-b2ea-fd4f96e0ed76', 'Kelp Ridge', '0102000020E610000002000000C74B3789410044C0713D0AD7A300464039B4C876BEFF43C063105839B4004640', 1, '2026-11-27 06:18:34.386806+00', '2026-11-27 06:18:34.386806+00', NULL, NULL);


--
-- Data for Name: file_import; Type: TABLE DATA; Schema: public; Owner: -
--



--
-- Data for Name: job; Type: TABLE DATA; Schema: public; Owner: -
--

INSERT INTO public.job VALUES ('a8d2d758-1bf2-4e47-b2ea-fd4f96e0ed76', 1, 'Before', 'Kelp Sound', 'Enquiry', '2026-12-03', 44, -40, 'FCC-like', 'sixty', 1.3333333333333333, 'strict', 5, 'headroom', 0.3, 10, 28, 10, 1013, 7.5, 27, 2, '2026-11-27 06:18:34.183041+00', '2026-11-27 06:18:34.564284+00', NULL, 'temperate', 'in', -250, NULL, 'auto', 3, 0.05, 0.6, 0.8, 0.9);


--
-- Data for Name: link; Type: TABLE DATA; Schema: public; Owner: -
--

INSERT INTO public.link VALUES ('80da2d2a-ab42-4c6c-ad42-3457ef462be2', 'a8d2d758-1bf2-4e47-b2ea-fd4f96e0ed76', 1, 'bf4587b0-c446-47eb-b6a8-84daeb2fbd8e', '82cd5aec-2541-4f29-9a70-e022243aebfb', 'first', 'Planned', 2, '2026-11-27 06:18:34.248177+00', '2026-11-27 06:18:34.274515+00', NULL, '{"kind": "level", "points": [{"distanceM": 0, "heightAmslM": 12}], "sigmaM": 0.3}');
INSERT INTO public.link VALUES ('804d416b-3265-49bc-875a-0ac80659de77', 'a8d2d758-1bf2-4e47-b2ea-fd4f96e0ed76', 2, 'bf4587b0-c446-47eb-b6a8-84daeb2fbd8e', '23dc364a-7610-428b-a6da-b210d1dcdf80', 'relay', 'Planned', 1, '2026-11-27 06:18:34.422073+00', '2026-11-27 06:18:34.422073+00', NULL, NULL);
INSERT INTO public.link VALUES ('825b3582-da64-4085-89aa-9c7fec75255a', 'a8d2d758-1bf2-4e47-b2ea-fd4f96e0ed76', 3, '23dc364a-7610-428b-a6da-b210d1dcdf80', '82cd5aec-2541-4f29-9a70-e022243aebfb', 'relay', 'Planned', 1, '2026-11-27 06:18:34.422073+00', '2026-11-27 06:18:34.422073+00', NULL, NULL);


--
-- Data for Name: link_verdict; Type: TABLE DATA; Schema: public; Owner: -
--

INSERT INTO public.link_verdict VALUES ('804d416b-3265-49bc-875a-0ac80659de77', 'a8d2d758-1bf2-4e47-b2ea-fd4f96e0ed76', 6, 0, NULL, '', NULL, NULL);
INSERT INTO public.link_verdict VALUES ('825b3582-da64-4085-89aa-9c7fec75255a', 'a8d2d758-1bf2-4e47-b2ea-fd4f96e0ed76', 7, 0, NULL, '', NULL, NULL);
INSERT INTO public.link_verdict VALUES ('80da2d2a-ab42-4c6c-ad42-3457ef462be2', 'a8d2d758-1bf2-4e47-b2ea-fd4f96e0ed76', 14, 0, NULL, '', NULL, NULL);


--
-- Data for Name: made_edit; Type: TABLE DATA; Schema: public; Owner: -
--



--
-- Data for Name: obstacle; Type: TABLE DATA; Schema: public; Owner: -
--

INSERT INTO public.obstacle VALUES ('a77b7cdb-164c-4b91-adf3-cb7f2595eb93', 'a8d2d758-1bf2-4e47-b2ea-fd4f96e0ed76', 'House', 'building', '0103000020E6100000010000000500000000000000000044C0713D0AD7A300464080B74082E2FF43C0713D0AD7A300464080B74082E2FF43C08D28ED0DBE00464000000000000044C08D28ED0DBE00464000000000000044C0713D0AD7A3004640', 10, 8, 0, 0, 0.5, NULL, 'drawn', '2026-01-01', 2, '2026-11-27 06:18:34.328543+00', '2026-11-27 06:18:34.538293+00', NULL, 0, NULL, 'typed', NULL);
INSERT INTO public.obstacle VALUES ('1554a0a3-1c1e-4e36-b3ba-1fe450ef9023', 'a8d2d758-1bf2-4e47-b2ea-fd4f96e0ed76', 'Ash', 'tree', '0103000020E61000000100000004000000F2D24D62100044C038894160E50046402B1895D4090044C038894160E50046408E75711B0D0044C0FF43FAEDEB004640F2D24D62100044C038894160E5004640', NULL, 9, 3, 0.3, 1, 'ash', 'drawn', '2026-01-01', 2, '2026-11-27 06:18:34.361414+00', '2026-11-27 06:18:34.546459+00', '2026-11-27 06:18:34.546459+00', 0, 'deciduous', 'typed', NULL);


--
-- Data for Name: photo; Type: TABLE DATA; Schema: public; Owner: -
--

INSERT INTO public.photo VALUES ('7e47421f-d719-49e7-bd17-0ce61792df2b', 'a8d2d758-1bf2-4e47-b2ea-fd4f96e0ed76', 'bf4587b0-c446-47eb-b6a8-84daeb2fbd8e', 'antenna height', 10, '2026-07-15', 'towards the kiln', 'image/jpeg', '\xffd8ff010203', 2, '2026-11-27 06:18:34.396676+00', '2026-11-27 06:18:34.396676+00', NULL);


--
-- Data for Name: radio; Type: TABLE DATA; Schema: public; Owner: -
--

INSERT INTO public.radio VALUES ('guillemot-flat', 'Guillemot Flat', '5', 'guillemot', '{"id": "guillemot-flat", "name": "Guillemot Flat", "roles": ["near/far", "remote"], "chains": 2, "duplex": "TDD, contention", "family": "guillemot", "sizeMm": {"depth": 40, "width": 110, "height": 190}, "antenna": {"form": "panel", "kind": "integrated", "gainDbi": 13, "azimuthBeamwidthDeg": 38.1, "elevationBeamwidthDeg": 38.1}, "bandKey": "5", "bandsMhz": [{"low": 5150, "high": 5350}, {"low": 5470, "high": 5725}, {"low": 5725, "high": 5850}], "ipRating": "IP54", "priceEur": 45, "standard": "n", "weightKg": 0.25, "eirpNotes": ["ETSI-like 5470-5725 30 dBm: cut transmit power by 6 dB (to 17 dBm)", "ETSI-like 5725-5875 registered 36 dBm: within", "FCC-like PtMP 5725-5850 36 dBm: within"], "maxLinkKm": 10, "maxEirpDbm": 36, "maxRemotes": 1, "maxStreams": 2, "powerKinds": ["passive24-2pair"], "windAreaM2": 0.021, "bootSeconds": 60, "deviceClass": "bridge radio", "modulations": [{"index": 0, "codeRate": "1/2", "modulation": "BPSK", "phyRateMbps": {"5": 3.61, "10": 7.22, "20": 14.44, "40": 30}, "maxTxPowerDbm": 23, "sensitivityDbm": {"5": -97, "10": -94, "20": -91, "40": -88}}, {"index": 1, "codeRate": "1/2", "modulation": "QPSK", "phyRateMbps": {"5": 7.22, "10": 14.44, "20": 28.89, "40": 60}, "maxTxPowerDbm": 23, "sensitivityDbm": {"5": -93, "10": -90, "20": -87, "40": -84}}, {"index": 2, "codeRate": "3/4", "modulation": "QPSK", "phyRateMbps": {"5": 10.83, "10": 21.67, "20": 43.33, "40": 90}, "maxTxPowerDbm": 23, "sensitivityDbm": {"5": -91, "10": -88, "20": -85, "40": -82}}, {"index": 3, "codeRate": "1/2", "modulation": "16-QAM", "phyRateMbps": {"5": 14.44, "10": 28.89, "20": 57.78, "40": 120}, "maxTxPowerDbm": 22.5, "sensitivityDbm": {"5": -88, "10": -85, "20": -82, "40": -79}}, {"index": 4, "codeRate": "3/4", "modulation": "16-QAM", "phyRateMbps": {"5": 21.67, "10": 43.33, "20": 86.67, "40": 180}, "maxTxPowerDbm": 22, "sensitivityDbm": {"5": -84, "10": -81, "20": -78, "40": -75}}, {"index": 5, "codeRate": "2/3", "modulation": "64-QAM", "phyRateMbps": {"5": 28.89, "10": 57.78, "20": 115.56, "40": 240}, "maxTxPowerDbm": 21, "sensitivityDbm": {"5": -79.5, "10": -76.5, "20": -73.5, "40": -70.5}}, {"index": 6, "codeRate": "3/4", "modulation": "64-QAM", "phyRateMbps": {"5": 32.5, "10": 65, "20": 130, "40": 270}, "maxTxPowerDbm": 20.5, "sensitivityDbm": {"5": -78.5, "10": -75.5, "20": -72.5, "40": -69.5}}, {"index": 7, "codeRate": "5/6", "modulation": "64-QAM", "phyRateMbps": {"5": 36.11, "10": 72.22, "20": 144.44, "40": 300}, "maxTxPowerDbm": 20, "sensitivityDbm": {"5": -77.5, "10": -74.5, "20": -71.5, "40": -68.5}}], "passThrough": null, "bestLevelDbm": {"low": -60, "high": -45}, "polarisation": "dual linear H+V", "temperatureC": {"low": -30, "high": 60}, "ethernetPorts": [{"port": 1, "medium": "copper", "powerIn": true, "speedMbps": 100}], "minTxPowerDbm": 0, "noiseFigureDb": 6, "powerDrawMaxW": 6.5, "txPowerStepDb": 1, "damageInputDbm": 10, "maxAggregateMs": 5.484, "poleDiameterMm": {"low": 25, "high": 55}, "radarDetection": true, "synchronisable": false, "securityDefault": "default account and password on the label; not forced", "channelWidthsMhz": [5, 10, 20, 40], "suppliedInjector": {"kind": "passive24-2pair", "volts": 24, "watts": 12}, "powerDrawTypicalW": 4, "txPowerToleranceDb": 2, "maxStreamsPerRemote": 2, "blockAckWindowFrames": 64, "maxOperatingInputDbm": -30}', 'catalogue', 1, '2026-11-27 06:18:34.171135+00', '2026-11-27 06:18:34.171135+00', NULL, NULL);


--
-- Data for Name: site; Type: TABLE DATA; Schema: public; Owner: -
--

INSERT INTO public.site VALUES ('23dc364a-7610-428b-a6da-b210d1dcdf80', 'a8d2d758-1bf2-4e47-b2ea-fd4f96e0ed76', 'Relay', 44.006, -40.002, 12, NULL, 'relay: mast, power and leave still to be found', '', 1, '2026-11-27 06:18:34.422073+00', '2026-11-27 06:18:34.422073+00', NULL, '', '', '', '', '', '[]', '[]', NULL, NULL);
INSERT INTO public.site VALUES ('3e3338cf-89cb-4562-8eaa-ed47f3cc7770', 'a8d2d758-1bf2-4e47-b2ea-fd4f96e0ed76', 'Gone', 44.03, -40, 6, 9, '', '', 2, '2026-11-27 06:18:34.235364+00', '2026-11-27 06:18:34.515508+00', '2026-11-27 06:18:34.515508+00', '', '', '', '', 'as found', '[{"id": "g", "aglM": 5, "name": "Gable", "eastM": 2, "behind": "timber", "northM": 1, "maxAglM": 7}]', '["way up is safe"]', NULL, 95);
INSERT INTO public.site VALUES ('bf4587b0-c446-47eb-b6a8-84daeb2fbd8e', 'a8d2d758-1bf2-4e47-b2ea-fd4f96e0ed76', 'Shed', 44, -40, 6.5, 9, '', '', 2, '2026-11-27 06:18:34.207722+00', '2026-11-27 06:18:34.525095+00', NULL, '', '', '', '', 'as found', '[{"id": "g", "aglM": 5, "name": "Gable", "eastM": 2, "behind": "timber", "northM": 1, "maxAglM": 7}]', '["way up is safe"]', NULL, 95);
INSERT INTO public.site VALUES ('82cd5aec-2541-4f29-9a70-e022243aebfb', 'a8d2d758-1bf2-4e47-b2ea-fd4f96e0ed76', 'Kiln', 44.012, -40, 6, 9, '', '', 3, '2026-11-27 06:18:34.221673+00', '2026-11-27 06:18:34.564284+00', NULL, '', '', '', '', 'as found', '[{"id": "g", "aglM": 5, "name": "Gable", "eastM": 2, "behind": "timber", "northM": 1, "maxAglM": 7}]', '["way up is safe"]', NULL, 95);


--
-- Data for Name: spatial_ref_sys; Type: TABLE DATA; Schema: public; Owner: -
--



--
-- Data for Name: terrain_dataset; Type: TABLE DATA; Schema: public; Owner: -
--



--
-- Data for Name: terrain_tile; Type: TABLE DATA; Schema: public; Owner: -
--



--
-- Data for Name: upload; Type: TABLE DATA; Schema: public; Owner: -
--



--
-- Name: __drizzle_migrations_id_seq; Type: SEQUENCE SET; Schema: drizzle; Owner: -
--

SELECT pg_catalog.setval('drizzle.__drizzle_migrations_id_seq', 7, true);


--
-- Name: change_id_seq; Type: SEQUENCE SET; Schema: public; Owner: -
--

SELECT pg_catalog.setval('public.change_id_seq', 26, true);


--
-- Name: __drizzle_migrations __drizzle_migrations_pkey; Type: CONSTRAINT; Schema: drizzle; Owner: -
--

ALTER TABLE ONLY drizzle.__drizzle_migrations
    ADD CONSTRAINT __drizzle_migrations_pkey PRIMARY KEY (id);


--
-- Name: antenna antenna_pkey; Type: CONSTRAINT; Schema: public; Owner: -
--

ALTER TABLE ONLY public.antenna
    ADD CONSTRAINT antenna_pkey PRIMARY KEY (id);


--
-- Name: basemap basemap_pkey; Type: CONSTRAINT; Schema: public; Owner: -
--

ALTER TABLE ONLY public.basemap
    ADD CONSTRAINT basemap_pkey PRIMARY KEY (id);


--
-- Name: beat beat_pkey; Type: CONSTRAINT; Schema: public; Owner: -
--

ALTER TABLE ONLY public.beat
    ADD CONSTRAINT beat_pkey PRIMARY KEY (id);


--
-- Name: brief brief_pkey; Type: CONSTRAINT; Schema: public; Owner: -
--

ALTER TABLE ONLY public.brief
    ADD CONSTRAINT brief_pkey PRIMARY KEY (job_id);


--
-- Name: change change_pkey; Type: CONSTRAINT; Schema: public; Owner: -
--

ALTER TABLE ONLY public.change
    ADD CONSTRAINT change_pkey PRIMARY KEY (id);


--
-- Name: design design_pkey; Type: CONSTRAINT; Schema: public; Owner: -
--

ALTER TABLE ONLY public.design
    ADD CONSTRAINT design_pkey PRIMARY KEY (id);


--
-- Name: feature feature_pkey; Type: CONSTRAINT; Schema: public; Owner: -
--

ALTER TABLE ONLY public.feature
    ADD CONSTRAINT feature_pkey PRIMARY KEY (id);


--
-- Name: file_import file_import_pkey; Type: CONSTRAINT; Schema: public; Owner: -
--

ALTER TABLE ONLY public.file_import
    ADD CONSTRAINT file_import_pkey PRIMARY KEY (id);


--
-- Name: job job_number_unique; Type: CONSTRAINT; Schema: public; Owner: -
--

ALTER TABLE ONLY public.job
    ADD CONSTRAINT job_number_unique UNIQUE (number);


--
-- Name: job job_pkey; Type: CONSTRAINT; Schema: public; Owner: -
--

ALTER TABLE ONLY public.job
    ADD CONSTRAINT job_pkey PRIMARY KEY (id);


--
-- Name: link link_pkey; Type: CONSTRAINT; Schema: public; Owner: -
--

ALTER TABLE ONLY public.link
    ADD CONSTRAINT link_pkey PRIMARY KEY (id);


--
-- Name: link_verdict link_verdict_pkey; Type: CONSTRAINT; Schema: public; Owner: -
--

ALTER TABLE ONLY public.link_verdict
    ADD CONSTRAINT link_verdict_pkey PRIMARY KEY (link_id);


--
-- Name: made_edit made_edit_pkey; Type: CONSTRAINT; Schema: public; Owner: -
--

ALTER TABLE ONLY public.made_edit
    ADD CONSTRAINT made_edit_pkey PRIMARY KEY (id);


--
-- Name: obstacle obstacle_pkey; Type: CONSTRAINT; Schema: public; Owner: -
--

ALTER TABLE ONLY public.obstacle
    ADD CONSTRAINT obstacle_pkey PRIMARY KEY (id);


--
-- Name: photo photo_pkey; Type: CONSTRAINT; Schema: public; Owner: -
--

ALTER TABLE ONLY public.photo
    ADD CONSTRAINT photo_pkey PRIMARY KEY (id);


--
-- Name: radio radio_pkey; Type: CONSTRAINT; Schema: public; Owner: -
--

ALTER TABLE ONLY public.radio
    ADD CONSTRAINT radio_pkey PRIMARY KEY (id);


--
-- Name: site site_pkey; Type: CONSTRAINT; Schema: public; Owner: -
--

ALTER TABLE ONLY public.site
    ADD CONSTRAINT site_pkey PRIMARY KEY (id);


--
-- Name: terrain_dataset terrain_dataset_pkey; Type: CONSTRAINT; Schema: public; Owner: -
--

ALTER TABLE ONLY public.terrain_dataset
    ADD CONSTRAINT terrain_dataset_pkey PRIMARY KEY (id);


--
-- Name: terrain_tile terrain_tile_dataset_id_tile_row_tile_col_pk; Type: CONSTRAINT; Schema: public; Owner: -
--

ALTER TABLE ONLY public.terrain_tile
    ADD CONSTRAINT terrain_tile_dataset_id_tile_row_tile_col_pk PRIMARY KEY (dataset_id, tile_row, tile_col);


--
-- Name: upload upload_pkey; Type: CONSTRAINT; Schema: public; Owner: -
--

ALTER TABLE ONLY public.upload
    ADD CONSTRAINT upload_pkey PRIMARY KEY (id);


--
-- Name: change_job; Type: INDEX; Schema: public; Owner: -
--

CREATE INDEX change_job ON public.change USING btree (job_id, id);


--
-- Name: design_link; Type: INDEX; Schema: public; Owner: -
--

CREATE INDEX design_link ON public.design USING btree (link_id);


--
-- Name: feature_job; Type: INDEX; Schema: public; Owner: -
--

CREATE INDEX feature_job ON public.feature USING btree (job_id);


--
-- Name: feature_shape; Type: INDEX; Schema: public; Owner: -
--

CREATE INDEX feature_shape ON public.feature USING gist (shape);


--
-- Name: file_import_job; Type: INDEX; Schema: public; Owner: -
--

CREATE INDEX file_import_job ON public.file_import USING btree (job_id);


--
-- Name: link_far; Type: INDEX; Schema: public; Owner: -
--

CREATE INDEX link_far ON public.link USING btree (far_site_id);


--
-- Name: link_near; Type: INDEX; Schema: public; Owner: -
--

CREATE INDEX link_near ON public.link USING btree (near_site_id);


--
-- Name: link_number; Type: INDEX; Schema: public; Owner: -
--

CREATE UNIQUE INDEX link_number ON public.link USING btree (job_id, number);


--
-- Name: link_verdict_job; Type: INDEX; Schema: public; Owner: -
--

CREATE INDEX link_verdict_job ON public.link_verdict USING btree (job_id);


--
-- Name: link_verdict_stale; Type: INDEX; Schema: public; Owner: -
--

CREATE INDEX link_verdict_stale ON public.link_verdict USING btree (asked_at) WHERE (have <> want);


--
-- Name: made_edit_at; Type: INDEX; Schema: public; Owner: -
--

CREATE INDEX made_edit_at ON public.made_edit USING btree (at);


--
-- Name: obstacle_import; Type: INDEX; Schema: public; Owner: -
--

CREATE INDEX obstacle_import ON public.obstacle USING btree (import_id);


--
-- Name: obstacle_job; Type: INDEX; Schema: public; Owner: -
--

CREATE INDEX obstacle_job ON public.obstacle USING btree (job_id);


--
-- Name: obstacle_outline; Type: INDEX; Schema: public; Owner: -
--

CREATE INDEX obstacle_outline ON public.obstacle USING gist (outline);


--
-- Name: photo_job; Type: INDEX; Schema: public; Owner: -
--

CREATE INDEX photo_job ON public.photo USING btree (job_id);


--
-- Name: site_job; Type: INDEX; Schema: public; Owner: -
--

CREATE INDEX site_job ON public.site USING btree (job_id);


--
-- Name: antenna antenna_stale; Type: TRIGGER; Schema: public; Owner: -
--

CREATE TRIGGER antenna_stale AFTER INSERT OR UPDATE ON public.antenna FOR EACH ROW EXECUTE FUNCTION public.stale_of_sheet();


--
-- Name: design design_stale; Type: TRIGGER; Schema: public; Owner: -
--

CREATE TRIGGER design_stale AFTER INSERT OR UPDATE ON public.design FOR EACH ROW EXECUTE FUNCTION public.stale_of_design();


--
-- Name: feature feature_changed; Type: TRIGGER; Schema: public; Owner: -
--

CREATE TRIGGER feature_changed AFTER UPDATE ON public.feature REFERENCING OLD TABLE AS was NEW TABLE AS changed FOR EACH STATEMENT EXECUTE FUNCTION public.stale_of_changed_drawn('shape');


--
-- Name: feature feature_new; Type: TRIGGER; Schema: public; Owner: -
--

CREATE TRIGGER feature_new AFTER INSERT ON public.feature REFERENCING NEW TABLE AS changed FOR EACH STATEMENT EXECUTE FUNCTION public.stale_of_new_drawn('shape');


--
-- Name: job job_stale; Type: TRIGGER; Schema: public; Owner: -
--

CREATE TRIGGER job_stale AFTER UPDATE ON public.job FOR EACH ROW EXECUTE FUNCTION public.stale_of_job();


--
-- Name: link link_stale; Type: TRIGGER; Schema: public; Owner: -
--

CREATE TRIGGER link_stale AFTER INSERT OR UPDATE ON public.link FOR EACH ROW EXECUTE FUNCTION public.stale_of_link();


--
-- Name: obstacle obstacle_changed; Type: TRIGGER; Schema: public; Owner: -
--

CREATE TRIGGER obstacle_changed AFTER UPDATE ON public.obstacle REFERENCING OLD TABLE AS was NEW TABLE AS changed FOR EACH STATEMENT EXECUTE FUNCTION public.stale_of_changed_drawn('outline');


--
-- Name: obstacle obstacle_new; Type: TRIGGER; Schema: public; Owner: -
--

CREATE TRIGGER obstacle_new AFTER INSERT ON public.obstacle REFERENCING NEW TABLE AS changed FOR EACH STATEMENT EXECUTE FUNCTION public.stale_of_new_drawn('outline');


--
-- Name: radio radio_stale; Type: TRIGGER; Schema: public; Owner: -
--

CREATE TRIGGER radio_stale AFTER INSERT OR UPDATE ON public.radio FOR EACH ROW EXECUTE FUNCTION public.stale_of_sheet();


--
-- Name: site site_stale; Type: TRIGGER; Schema: public; Owner: -
--

CREATE TRIGGER site_stale AFTER UPDATE ON public.site FOR EACH ROW EXECUTE FUNCTION public.stale_of_site();


--
-- Name: terrain_dataset terrain_stale; Type: TRIGGER; Schema: public; Owner: -
--

CREATE TRIGGER terrain_stale AFTER INSERT OR UPDATE ON public.terrain_dataset FOR EACH ROW EXECUTE FUNCTION public.stale_of_terrain();


--
-- Name: basemap basemap_job_id_job_id_fk; Type: FK CONSTRAINT; Schema: public; Owner: -
--

ALTER TABLE ONLY public.basemap
    ADD CONSTRAINT basemap_job_id_job_id_fk FOREIGN KEY (job_id) REFERENCES public.job(id);


--
-- Name: basemap basemap_upload_id_upload_id_fk; Type: FK CONSTRAINT; Schema: public; Owner: -
--

ALTER TABLE ONLY public.basemap
    ADD CONSTRAINT basemap_upload_id_upload_id_fk FOREIGN KEY (upload_id) REFERENCES public.upload(id);


--
-- Name: brief brief_job_id_job_id_fk; Type: FK CONSTRAINT; Schema: public; Owner: -
--

ALTER TABLE ONLY public.brief
    ADD CONSTRAINT brief_job_id_job_id_fk FOREIGN KEY (job_id) REFERENCES public.job(id);


--
-- Name: change change_job_id_job_id_fk; Type: FK CONSTRAINT; Schema: public; Owner: -
--

ALTER TABLE ONLY public.change
    ADD CONSTRAINT change_job_id_job_id_fk FOREIGN KEY (job_id) REFERENCES public.job(id);


--
-- Name: design design_far_antenna_id_antenna_id_fk; Type: FK CONSTRAINT; Schema: public; Owner: -
--

ALTER TABLE ONLY public.design
    ADD CONSTRAINT design_far_antenna_id_antenna_id_fk FOREIGN KEY (far_antenna_id) REFERENCES public.antenna(id);


--
-- Name: design design_far_radio_id_radio_id_fk; Type: FK CONSTRAINT; Schema: public; Owner: -
--

ALTER TABLE ONLY public.design
    ADD CONSTRAINT design_far_radio_id_radio_id_fk FOREIGN KEY (far_radio_id) REFERENCES public.radio(id);


--
-- Name: design design_link_id_link_id_fk; Type: FK CONSTRAINT; Schema: public; Owner: -
--

ALTER TABLE ONLY public.design
    ADD CONSTRAINT design_link_id_link_id_fk FOREIGN KEY (link_id) REFERENCES public.link(id);


--
-- Name: design design_near_antenna_id_antenna_id_fk; Type: FK CONSTRAINT; Schema: public; Owner: -
--

ALTER TABLE ONLY public.design
    ADD CONSTRAINT design_near_antenna_id_antenna_id_fk FOREIGN KEY (near_antenna_id) REFERENCES public.antenna(id);


--
-- Name: design design_near_radio_id_radio_id_fk; Type: FK CONSTRAINT; Schema: public; Owner: -
--

ALTER TABLE ONLY public.design
    ADD CONSTRAINT design_near_radio_id_radio_id_fk FOREIGN KEY (near_radio_id) REFERENCES public.radio(id);


--
-- Name: feature feature_job_id_job_id_fk; Type: FK CONSTRAINT; Schema: public; Owner: -
--

ALTER TABLE ONLY public.feature
    ADD CONSTRAINT feature_job_id_job_id_fk FOREIGN KEY (job_id) REFERENCES public.job(id);


--
-- Name: file_import file_import_job_id_job_id_fk; Type: FK CONSTRAINT; Schema: public; Owner: -
--

ALTER TABLE ONLY public.file_import
    ADD CONSTRAINT file_import_job_id_job_id_fk FOREIGN KEY (job_id) REFERENCES public.job(id);


--
-- Name: file_import file_import_upload_id_upload_id_fk; Type: FK CONSTRAINT; Schema: public; Owner: -
--

ALTER TABLE ONLY public.file_import
    ADD CONSTRAINT file_import_upload_id_upload_id_fk FOREIGN KEY (upload_id) REFERENCES public.upload(id);


--
-- Name: link link_far_site_id_site_id_fk; Type: FK CONSTRAINT; Schema: public; Owner: -
--

ALTER TABLE ONLY public.link
    ADD CONSTRAINT link_far_site_id_site_id_fk FOREIGN KEY (far_site_id) REFERENCES public.site(id);


--
-- Name: link link_job_id_job_id_fk; Type: FK CONSTRAINT; Schema: public; Owner: -
--

ALTER TABLE ONLY public.link
    ADD CONSTRAINT link_job_id_job_id_fk FOREIGN KEY (job_id) REFERENCES public.job(id);


--
-- Name: link link_near_site_id_site_id_fk; Type: FK CONSTRAINT; Schema: public; Owner: -
--

ALTER TABLE ONLY public.link
    ADD CONSTRAINT link_near_site_id_site_id_fk FOREIGN KEY (near_site_id) REFERENCES public.site(id);


--
-- Name: link_verdict link_verdict_job_id_job_id_fk; Type: FK CONSTRAINT; Schema: public; Owner: -
--

ALTER TABLE ONLY public.link_verdict
    ADD CONSTRAINT link_verdict_job_id_job_id_fk FOREIGN KEY (job_id) REFERENCES public.job(id);


--
-- Name: link_verdict link_verdict_link_id_link_id_fk; Type: FK CONSTRAINT; Schema: public; Owner: -
--

ALTER TABLE ONLY public.link_verdict
    ADD CONSTRAINT link_verdict_link_id_link_id_fk FOREIGN KEY (link_id) REFERENCES public.link(id) ON DELETE CASCADE;


--
-- Name: obstacle obstacle_job_id_job_id_fk; Type: FK CONSTRAINT; Schema: public; Owner: -
--

ALTER TABLE ONLY public.obstacle
    ADD CONSTRAINT obstacle_job_id_job_id_fk FOREIGN KEY (job_id) REFERENCES public.job(id);


--
-- Name: photo photo_job_id_job_id_fk; Type: FK CONSTRAINT; Schema: public; Owner: -
--

ALTER TABLE ONLY public.photo
    ADD CONSTRAINT photo_job_id_job_id_fk FOREIGN KEY (job_id) REFERENCES public.job(id);


--
-- Name: photo photo_site_id_site_id_fk; Type: FK CONSTRAINT; Schema: public; Owner: -
--

ALTER TABLE ONLY public.photo
    ADD CONSTRAINT photo_site_id_site_id_fk FOREIGN KEY (site_id) REFERENCES public.site(id);


--
-- Name: site site_job_id_job_id_fk; Type: FK CONSTRAINT; Schema: public; Owner: -
--

ALTER TABLE ONLY public.site
    ADD CONSTRAINT site_job_id_job_id_fk FOREIGN KEY (job_id) REFERENCES public.job(id);


--
-- Name: terrain_tile terrain_tile_dataset_id_terrain_dataset_id_fk; Type: FK CONSTRAINT; Schema: public; Owner: -
--

ALTER TABLE ONLY public.terrain_tile
    ADD CONSTRAINT terrain_tile_dataset_id_terrain_dataset_id_fk FOREIGN KEY (dataset_id) REFERENCES public.terrain_dataset(id);


--
-- Name: upload upload_job_id_job_id_fk; Type: FK CONSTRAINT; Schema: public; Owner: -
--

ALTER TABLE ONLY public.upload
    ADD CONSTRAINT upload_job_id_job_id_fk FOREIGN KEY (job_id) REFERENCES public.job(id);


--
-- PostgreSQL database dump complete
--


