CREATE TABLE public.audit (
    id bigint NOT NULL,
    at timestamp with time zone DEFAULT now() NOT NULL,
    site_id text,
    user_id text,
    who text NOT NULL,
    act text NOT NULL,
    about text DEFAULT ''::text NOT NULL,
    address text DEFAULT ''::text NOT NULL,
    CONSTRAINT audit_act_check CHECK ((length(act) <= 60))
);

COMMENT ON TABLE public.audit IS 'Who did what that others may have to account for; kept a year. Names and addresses are as they were then.';

ALTER TABLE public.audit ALTER COLUMN id ADD GENERATED ALWAYS AS IDENTITY (
    SEQUENCE NAME public.audit_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);

CREATE TABLE public.counts (
    site_id text NOT NULL,
    day date NOT NULL,
    what text NOT NULL,
    key text NOT NULL,
    n bigint NOT NULL,
    CONSTRAINT counts_key_check CHECK ((length(key) <= 200))
);

COMMENT ON TABLE public.counts IS 'How often something happened on a site on a day: views, visits, from where, searches in vain.';

CREATE TABLE public.domains (
    host text NOT NULL,
    site_id text NOT NULL,
    token text NOT NULL,
    found_at timestamp with time zone,
    failing_since timestamp with time zone,
    CONSTRAINT domains_host_check CHECK (((host = lower(host)) AND ((length(host) >= 4) AND (length(host) <= 253))))
);

COMMENT ON TABLE public.domains IS 'Domains of sites'' own: proved by their records, and shown while those stand and a while beyond.';

CREATE TABLE public.editions (
    page_id text NOT NULL,
    originals text[] NOT NULL,
    source json NOT NULL
);

COMMENT ON TABLE public.editions IS 'What a page was published from, kept while pictures on it lack copies: originals are those pictures'' files.';

CREATE TABLE public.entry_notes (
    id text NOT NULL,
    entry_id text NOT NULL,
    user_id text,
    words text NOT NULL,
    made_at timestamp with time zone DEFAULT now() NOT NULL,
    CONSTRAINT entry_notes_words_check CHECK (((length(words) >= 1) AND (length(words) <= 4000)))
);

COMMENT ON TABLE public.entry_notes IS 'What people of a site noted beside an entry.';

CREATE TABLE public.entry_reads (
    entry_id text NOT NULL,
    user_id text NOT NULL,
    read boolean NOT NULL
);

COMMENT ON TABLE public.entry_reads IS 'Who has read which entry, or called it unread.';

CREATE TABLE public.form_entries (
    id text NOT NULL,
    site_id text NOT NULL,
    form text NOT NULL,
    answers json NOT NULL,
    sent_at timestamp with time zone DEFAULT now() NOT NULL,
    trial boolean DEFAULT false NOT NULL,
    suspect text DEFAULT ''::text NOT NULL,
    sent_from text DEFAULT ''::text NOT NULL,
    starred boolean DEFAULT false NOT NULL,
    assigned_to text,
    deleted_at timestamp with time zone,
    found tsvector GENERATED ALWAYS AS (to_tsvector('simple'::regconfig, public.answer_words(answers))) STORED,
    once bytea,
    CONSTRAINT form_entries_form_check CHECK (((length(form) >= 1) AND (length(form) <= 120))),
    CONSTRAINT form_entries_sent_from_check CHECK ((length(sent_from) <= 600)),
    CONSTRAINT form_entries_suspect_check CHECK ((length(suspect) <= 120))
);

COMMENT ON TABLE public.form_entries IS 'What visitors sent with the forms of published pages.';

CREATE TABLE public.form_settings (
    site_id text NOT NULL,
    form text NOT NULL,
    days integer,
    mail_to text,
    CONSTRAINT form_settings_days_check CHECK (((days >= 1) AND (days <= 3650))),
    CONSTRAINT form_settings_form_check CHECK (((length(form) >= 1) AND (length(form) <= 120))),
    CONSTRAINT form_settings_mail_to_check CHECK ((length(mail_to) <= 2000))
);

COMMENT ON TABLE public.form_settings IS 'What of a form differs from its site: how long entries are kept, and where they are sent on to.';

CREATE TABLE public.former_addresses (
    slug text NOT NULL,
    site_id text NOT NULL,
    left_at timestamp with time zone DEFAULT now() NOT NULL
);

COMMENT ON TABLE public.former_addresses IS 'Addresses that sites had and that nobody else has taken since.';

CREATE TABLE public.house_log (
    site_id text NOT NULL,
    version bigint NOT NULL,
    user_id text,
    command json,
    before json NOT NULL,
    after json NOT NULL,
    undone boolean DEFAULT false NOT NULL,
    made_at timestamp with time zone DEFAULT now() NOT NULL,
    act text,
    CONSTRAINT house_log_version_check CHECK ((version > 1))
);

COMMENT ON TABLE public.house_log IS 'The edits of house styles, each as it was before and after; entries of one act share it with those of page_log.';

CREATE TABLE public.invitations (
    id text NOT NULL,
    token bytea NOT NULL,
    site_id text NOT NULL,
    email text NOT NULL,
    role text NOT NULL,
    made_by text NOT NULL,
    made_at timestamp with time zone DEFAULT now() NOT NULL,
    ends_at timestamp with time zone NOT NULL,
    CONSTRAINT invitations_role_check CHECK ((role = ANY (ARRAY['owner'::text, 'designer'::text, 'writer'::text])))
);

COMMENT ON TABLE public.invitations IS 'Links by which people join a site in a role, each for one email and by a hash of what is in it.';

CREATE TABLE public.kept_houses (
    id text NOT NULL,
    site_id text NOT NULL,
    name text NOT NULL,
    house json NOT NULL,
    created_at timestamp with time zone DEFAULT now() NOT NULL,
    CONSTRAINT kept_houses_name_check CHECK (((length(name) >= 1) AND (length(name) <= 120)))
);

COMMENT ON TABLE public.kept_houses IS 'House styles that a site keeps beside its own, to be tried on.';

CREATE TABLE public.kept_sections (
    id text NOT NULL,
    site_id text NOT NULL,
    name text NOT NULL,
    section json NOT NULL,
    created_at timestamp with time zone DEFAULT now() NOT NULL,
    format integer DEFAULT 2 NOT NULL,
    purpose text DEFAULT ''::text NOT NULL,
    owner text,
    CONSTRAINT kept_sections_name_check CHECK (((length(name) >= 1) AND (length(name) <= 120))),
    CONSTRAINT kept_sections_purpose_check CHECK ((length(purpose) <= 40))
);

COMMENT ON TABLE public.kept_sections IS 'Sections that people put on the Shelf.';

CREATE TABLE public.mails (
    id text NOT NULL,
    site_id text NOT NULL,
    kind text NOT NULL,
    entry_id text,
    recipient text NOT NULL,
    reply_to text DEFAULT ''::text NOT NULL,
    letter json NOT NULL,
    made_at timestamp with time zone DEFAULT now() NOT NULL,
    sent_at timestamp with time zone,
    tried integer DEFAULT 0 NOT NULL,
    problem text DEFAULT ''::text NOT NULL,
    failed boolean DEFAULT false NOT NULL,
    made_by text,
    CONSTRAINT mails_kind_check CHECK ((kind = ANY (ARRAY['entry'::text, 'invitation'::text, 'trial'::text, 'answer'::text, 'copy'::text]))),
    CONSTRAINT mails_recipient_check CHECK ((length(recipient) <= 254)),
    CONSTRAINT mails_reply_to_check CHECK ((length(reply_to) <= 254))
);

COMMENT ON TABLE public.mails IS 'Mails to people, with how far each came; sent from a queue.';

CREATE TABLE public.media (
    id text NOT NULL,
    site_id text NOT NULL,
    name text NOT NULL,
    type text NOT NULL,
    width integer NOT NULL,
    height integer NOT NULL,
    alt text DEFAULT ''::text NOT NULL,
    variants jsonb NOT NULL,
    created_at timestamp with time zone DEFAULT now() NOT NULL,
    focal text DEFAULT '50% 50%'::text NOT NULL,
    original text DEFAULT ''::text NOT NULL,
    copies_left integer DEFAULT 0 NOT NULL,
    bytes bigint DEFAULT 0 NOT NULL,
    uploaded_by text,
    problem text DEFAULT ''::text NOT NULL,
    folder text DEFAULT ''::text NOT NULL,
    deleted_at timestamp with time zone,
    CONSTRAINT media_bytes_check CHECK ((bytes >= 0)),
    CONSTRAINT media_copies_left_check CHECK ((copies_left >= 0)),
    CONSTRAINT media_focal_check CHECK ((length(focal) <= 20)),
    CONSTRAINT media_folder_check CHECK ((length(folder) <= 60)),
    CONSTRAINT media_height_check CHECK ((height >= 0)),
    CONSTRAINT media_name_check CHECK (((length(name) >= 1) AND (length(name) <= 200))),
    CONSTRAINT media_original_check CHECK ((length(original) <= 120)),
    CONSTRAINT media_problem_check CHECK ((length(problem) <= 500)),
    CONSTRAINT media_type_check CHECK (((type ~ '^(image|video|audio|application|text)/[a-z0-9.+-]{1,100}$'::text) AND (type <> ALL (ARRAY['text/html'::text, 'application/xhtml+xml'::text, 'text/javascript'::text])))),
    CONSTRAINT media_width_check CHECK ((width >= 0))
);

COMMENT ON TABLE public.media IS 'Pictures, videos and files of libraries, with the copies that are made of them.';

CREATE TABLE public.members (
    site_id text NOT NULL,
    user_id text NOT NULL,
    role text NOT NULL,
    joined_at timestamp with time zone DEFAULT now() NOT NULL,
    CONSTRAINT members_role_check CHECK ((role = ANY (ARRAY['owner'::text, 'designer'::text, 'writer'::text])))
);

COMMENT ON TABLE public.members IS 'Who belongs to a site, in which role.';

CREATE TABLE public.milestones (
    name text NOT NULL,
    reached_at timestamp with time zone DEFAULT now() NOT NULL
);

COMMENT ON TABLE public.milestones IS 'What happens once in the life of a database.';

CREATE TABLE public.page_docs (
    page_id text NOT NULL,
    seq bigint NOT NULL,
    doc json NOT NULL
);

COMMENT ON TABLE public.page_docs IS 'Pages as they were, each kept once for all versions that have it so.';

CREATE TABLE public.page_drawings (
    page_id text NOT NULL,
    seq bigint NOT NULL,
    look text NOT NULL,
    svg text NOT NULL
);

COMMENT ON TABLE public.page_drawings IS 'Pages drawn for lists, and as of which edit and which look of the site.';

CREATE TABLE public.page_findings (
    page_id text NOT NULL,
    seq bigint NOT NULL,
    look text NOT NULL,
    broken integer NOT NULL,
    doubtful integer NOT NULL,
    hints integer NOT NULL
);

COMMENT ON TABLE public.page_findings IS 'How much the checks of a page found, and as of which edit and which look of the site.';

CREATE TABLE public.page_log (
    page_id text NOT NULL,
    seq bigint NOT NULL,
    user_id text,
    kind text NOT NULL,
    target bigint,
    undone boolean DEFAULT false NOT NULL,
    command json,
    steps json NOT NULL,
    inverse json NOT NULL,
    nodes text[] NOT NULL,
    made_at timestamp with time zone DEFAULT now() NOT NULL,
    act text,
    CONSTRAINT page_log_check CHECK (((kind = 'edit'::text) = (target IS NULL))),
    CONSTRAINT page_log_kind_check CHECK ((kind = ANY (ARRAY['edit'::text, 'undo'::text, 'redo'::text]))),
    CONSTRAINT page_log_seq_check CHECK ((seq > 0))
);

COMMENT ON TABLE public.page_log IS 'The edits of pages: each command with its steps and their inverses.';

CREATE TABLE public.page_snapshots (
    page_id text NOT NULL,
    seq bigint NOT NULL,
    name text DEFAULT ''::text NOT NULL,
    doc json NOT NULL,
    made_at timestamp with time zone DEFAULT now() NOT NULL,
    CONSTRAINT page_snapshots_name_check CHECK ((length(name) <= 120)),
    CONSTRAINT page_snapshots_seq_check CHECK ((seq >= 0))
);

COMMENT ON TABLE public.page_snapshots IS 'A page as it was at a place in its log: what is before the oldest one isn''t in the log any more.';

CREATE TABLE public.pages (
    id text NOT NULL,
    site_id text NOT NULL,
    slug text NOT NULL,
    "position" integer DEFAULT 0 NOT NULL,
    doc json NOT NULL,
    seq bigint DEFAULT 0 NOT NULL,
    published_at timestamp with time zone,
    published_seq bigint,
    edits bigint DEFAULT 0 NOT NULL,
    name text DEFAULT ''::text NOT NULL,
    description text DEFAULT ''::text NOT NULL,
    categories text[] DEFAULT '{}'::text[] NOT NULL,
    picture text DEFAULT ''::text NOT NULL,
    published_look bigint,
    parent text,
    deleted_at timestamp with time zone,
    in_menu boolean DEFAULT true NOT NULL,
    in_footer boolean DEFAULT false NOT NULL,
    menu_name text DEFAULT ''::text NOT NULL,
    lock text DEFAULT ''::text NOT NULL,
    edited_at timestamp with time zone DEFAULT now() NOT NULL,
    shared text[] DEFAULT '{}'::text[] NOT NULL,
    asked_by text DEFAULT ''::text NOT NULL,
    asked_seq bigint,
    dated text DEFAULT ''::text NOT NULL,
    begun_at timestamp with time zone DEFAULT now() NOT NULL,
    media text[] DEFAULT '{}'::text[] NOT NULL,
    begins text DEFAULT ''::text NOT NULL,
    begins_by text,
    CONSTRAINT pages_begins_check CHECK ((begins = ANY (ARRAY[''::text, 'site'::text, 'all'::text]))),
    CONSTRAINT pages_menu_name_check CHECK ((length(menu_name) <= 120)),
    CONSTRAINT pages_seq_check CHECK ((seq >= 0)),
    CONSTRAINT pages_slug_check CHECK (((slug = ''::text) OR ((slug ~ '^[a-z0-9]+(-[a-z0-9]+)*(/[a-z0-9]+(-[a-z0-9]+)*)*$'::text) AND (length(slug) <= 260))))
);

COMMENT ON TABLE public.pages IS 'The pages of sites as they stand (doc), where they are in the tree, and what visitors see of them.';

CREATE TABLE public.picture_work (
    site_id text NOT NULL,
    user_id text NOT NULL,
    hour timestamp with time zone NOT NULL,
    opening bigint DEFAULT 0 NOT NULL,
    copying bigint DEFAULT 0 NOT NULL
);

COMMENT ON TABLE public.picture_work IS 'Processor time in ms that uploads took, by hour. No user is the program itself.';

CREATE TABLE public.plans (
    id text NOT NULL,
    site_id text NOT NULL,
    act text NOT NULL,
    pages text[] NOT NULL,
    at timestamp with time zone NOT NULL,
    made_by text,
    problem text DEFAULT ''::text NOT NULL,
    at_once boolean DEFAULT false NOT NULL,
    done integer DEFAULT 0 NOT NULL,
    parts integer DEFAULT 0 NOT NULL,
    CONSTRAINT plans_act_check CHECK ((act = ANY (ARRAY['publish'::text, 'withdraw'::text])))
);

COMMENT ON TABLE public.plans IS 'What is to be published or withdrawn at a time.';

CREATE TABLE public.previews (
    id text NOT NULL,
    token bytea NOT NULL,
    site_id text NOT NULL,
    page_id text,
    made_by text NOT NULL,
    made_at timestamp with time zone DEFAULT now() NOT NULL,
    ends_at timestamp with time zone NOT NULL
);

COMMENT ON TABLE public.previews IS 'Links by which others see drafts, each by a hash of what is in it.';

CREATE TABLE public.processes (
    id text NOT NULL,
    seen_at timestamp with time zone DEFAULT now() NOT NULL
);

COMMENT ON TABLE public.processes IS 'The processes that run on this database, by when they last said so.';

CREATE TABLE public.published (
    page_id text NOT NULL,
    site_id text NOT NULL,
    slug text NOT NULL,
    name text NOT NULL,
    description text NOT NULL,
    words text NOT NULL,
    forms text[] NOT NULL,
    config regconfig NOT NULL,
    search tsvector GENERATED ALWAYS AS (((setweight(to_tsvector(config, name), 'A'::"char") || setweight(to_tsvector(config, description), 'B'::"char")) || setweight(to_tsvector(config, words), 'C'::"char"))) STORED NOT NULL,
    fields jsonb
);

COMMENT ON TABLE public.published IS 'What visitors can read of each page, kept as it is published; and the forms on it.';

CREATE TABLE public.quiet_findings (
    page_id text NOT NULL,
    rule text NOT NULL,
    node text NOT NULL,
    other text NOT NULL,
    part text NOT NULL,
    content text NOT NULL,
    reason text NOT NULL,
    said_by text,
    said_at timestamp with time zone DEFAULT now() NOT NULL
);

COMMENT ON TABLE public.quiet_findings IS 'Findings that are kept quiet on a page, and why.';

CREATE TABLE public.redirects (
    site_id text NOT NULL,
    address text NOT NULL,
    page_id text,
    target text DEFAULT ''::text NOT NULL,
    made_at timestamp with time zone DEFAULT now() NOT NULL,
    CONSTRAINT redirects_address_check CHECK (((length(address) >= 1) AND (length(address) <= 260))),
    CONSTRAINT redirects_check CHECK (((page_id IS NULL) = (target <> ''::text))),
    CONSTRAINT redirects_target_check CHECK ((length(target) <= 2000))
);

COMMENT ON TABLE public.redirects IS 'Addresses of a site that lead to others.';

CREATE TABLE public.releases (
    site_id text NOT NULL,
    number bigint NOT NULL,
    content json NOT NULL,
    note text NOT NULL,
    made_by text,
    made_at timestamp with time zone DEFAULT now() NOT NULL,
    CONSTRAINT releases_note_check CHECK ((length(note) <= 300)),
    CONSTRAINT releases_number_check CHECK ((number > 0))
);

COMMENT ON TABLE public.releases IS 'What a site''s host shows, as of each publication: content is site.Release.';

CREATE TABLE public.salts (
    day date NOT NULL,
    salt bytea NOT NULL
);

COMMENT ON TABLE public.salts IS 'Of hashes of a day, thrown away after it.';

CREATE TABLE public.sessions (
    token text NOT NULL,
    data bytea NOT NULL,
    expiry timestamp with time zone NOT NULL
);

COMMENT ON TABLE public.sessions IS 'Who is signed in, by a hash of what their browser has.';

CREATE TABLE public.shelf_uses (
    user_id text NOT NULL,
    item text NOT NULL,
    used_at timestamp with time zone,
    favourite boolean DEFAULT false NOT NULL,
    CONSTRAINT shelf_uses_item_check CHECK ((length(item) <= 80))
);

COMMENT ON TABLE public.shelf_uses IS 'What somebody took from the Shelf, and what they marked as a favourite.';

CREATE TABLE public.sites (
    id text NOT NULL,
    slug text NOT NULL,
    name text NOT NULL,
    house jsonb NOT NULL,
    zones jsonb NOT NULL,
    version bigint DEFAULT 1 NOT NULL,
    created_at timestamp with time zone DEFAULT now() NOT NULL,
    facts jsonb DEFAULT '{}'::jsonb NOT NULL,
    language text DEFAULT 'en'::text NOT NULL,
    entry_days integer DEFAULT 365 NOT NULL,
    business text DEFAULT ''::text NOT NULL,
    release bigint,
    share_picture text DEFAULT ''::text NOT NULL,
    icon json DEFAULT '{}'::json NOT NULL,
    time_zone text DEFAULT ''::text NOT NULL,
    archived_at timestamp with time zone,
    deleted_at timestamp with time zone,
    begun boolean DEFAULT false NOT NULL,
    menus json DEFAULT '{}'::json NOT NULL,
    zones_before jsonb,
    counts_visits boolean DEFAULT false NOT NULL,
    maker text,
    seen_narrow boolean DEFAULT false NOT NULL,
    offline_at timestamp with time zone,
    offline_words text DEFAULT ''::text NOT NULL,
    mail_to text DEFAULT ''::text NOT NULL,
    mail_name text DEFAULT ''::text NOT NULL,
    mail_reply text DEFAULT ''::text NOT NULL,
    CONSTRAINT sites_business_check CHECK ((length(business) <= 20)),
    CONSTRAINT sites_entry_days_check CHECK (((entry_days >= 1) AND (entry_days <= 3650))),
    CONSTRAINT sites_language_check CHECK ((language ~ '^[a-z]{2,3}(-[A-Za-z0-9]{2,8})*$'::text)),
    CONSTRAINT sites_mail_name_check CHECK ((length(mail_name) <= 120)),
    CONSTRAINT sites_mail_reply_check CHECK ((length(mail_reply) <= 254)),
    CONSTRAINT sites_mail_to_check CHECK ((length(mail_to) <= 2000)),
    CONSTRAINT sites_name_check CHECK (((length(name) >= 1) AND (length(name) <= 120))),
    CONSTRAINT sites_slug_check CHECK (((slug ~ '^[a-z0-9]+(-[a-z0-9]+)*$'::text) AND (length(slug) <= 60))),
    CONSTRAINT sites_time_zone_check CHECK ((length(time_zone) <= 60))
);

COMMENT ON TABLE public.sites IS 'Sites, with their zones, house styles and settings.';

CREATE VIEW public.shown_sites AS
 SELECT sites.id,
    sites.slug,
    sites.release,
    sites.counts_visits,
    sites.offline_at,
    sites.offline_words
   FROM public.sites
  WHERE ((sites.deleted_at IS NULL) AND (sites.archived_at IS NULL) AND (sites.maker IS NULL));

COMMENT ON VIEW public.shown_sites IS 'Sites that visitors may see something of: neither deleted nor archived.';

CREATE TABLE public.site_fonts (
    id text NOT NULL,
    site_id text NOT NULL,
    family text NOT NULL,
    italic boolean NOT NULL,
    least_weight integer NOT NULL,
    most_weight integer NOT NULL,
    file text NOT NULL,
    original text NOT NULL,
    created_at timestamp with time zone DEFAULT now() NOT NULL,
    CONSTRAINT site_fonts_check CHECK (((most_weight >= least_weight) AND (most_weight <= 1000))),
    CONSTRAINT site_fonts_family_check CHECK (((length(family) >= 1) AND (length(family) <= 40))),
    CONSTRAINT site_fonts_least_weight_check CHECK (((least_weight >= 1) AND (least_weight <= 1000)))
);

COMMENT ON TABLE public.site_fonts IS 'Files of a site''s own font families.';

CREATE TABLE public.sweeps (
    site_id text NOT NULL,
    done integer DEFAULT 0 NOT NULL,
    pages integer NOT NULL,
    stopping boolean DEFAULT false NOT NULL,
    begun_at timestamp with time zone DEFAULT now() NOT NULL,
    CONSTRAINT sweeps_check CHECK ((pages >= done)),
    CONSTRAINT sweeps_done_check CHECK ((done >= 0))
);

COMMENT ON TABLE public.sweeps IS 'The checks of a site''s pages that are under way in the background: how far they have come, and whether somebody wants them to end.';

CREATE TABLE public.users (
    id text NOT NULL,
    email text NOT NULL,
    name text NOT NULL,
    password_hash text NOT NULL,
    created_at timestamp with time zone DEFAULT now() NOT NULL,
    epoch bigint DEFAULT 1 NOT NULL,
    disabled_at timestamp with time zone,
    operator boolean DEFAULT false NOT NULL,
    tray text DEFAULT ''::text NOT NULL,
    keys jsonb DEFAULT '{}'::jsonb NOT NULL,
    CONSTRAINT users_email_check CHECK (((email = lower(email)) AND ((length(email) >= 3) AND (length(email) <= 254)))),
    CONSTRAINT users_keys_check CHECK ((pg_column_size(keys) <= 8192)),
    CONSTRAINT users_name_check CHECK (((length(name) >= 1) AND (length(name) <= 120))),
    CONSTRAINT users_tray_check CHECK ((tray = ANY (ARRAY[''::text, 'below'::text, 'beside'::text])))
);

COMMENT ON TABLE public.users IS 'Accounts of people.';

CREATE TABLE public.versions (
    id text NOT NULL,
    site_id text NOT NULL,
    page_id text,
    seq bigint,
    house json,
    pages jsonb,
    kind text NOT NULL,
    note text DEFAULT ''::text NOT NULL,
    made_by text,
    made_at timestamp with time zone DEFAULT now() NOT NULL,
    CONSTRAINT versions_check CHECK ((((page_id IS NULL) = ((house IS NOT NULL) AND (pages IS NOT NULL))) AND ((page_id IS NULL) = (seq IS NULL)))),
    CONSTRAINT versions_kind_check CHECK ((kind = ANY (ARRAY['named'::text, 'published'::text, 'before'::text, 'hour'::text]))),
    CONSTRAINT versions_note_check CHECK ((length(note) <= 300))
);

COMMENT ON TABLE public.versions IS 'A page as of a place in its log, or a site with all its pages as of one moment.';

CREATE UNLOGGED TABLE public.visit_marks (
    site_id text NOT NULL,
    day date NOT NULL,
    mark bytea NOT NULL
);

COMMENT ON TABLE public.visit_marks IS 'Who was on a site today, as a hash with the salt of the day.';

CREATE TABLE public.visits (
    page_id text NOT NULL,
    day date NOT NULL,
    width smallint NOT NULL,
    n integer DEFAULT 1 NOT NULL,
    CONSTRAINT visits_width_check CHECK ((((width >= 0) AND (width <= 8000)) AND (((width)::integer % 40) = 0)))
);

COMMENT ON TABLE public.visits IS 'How many windows of which width visitors saw pages in, by day.';

CREATE TABLE public.works (
    id text NOT NULL,
    user_id text NOT NULL,
    name text NOT NULL,
    slug text DEFAULT ''::text NOT NULL,
    file text DEFAULT ''::text NOT NULL,
    source text,
    address text DEFAULT ''::text NOT NULL,
    state text DEFAULT 'waiting'::text NOT NULL,
    stopping boolean DEFAULT false NOT NULL,
    done integer DEFAULT 0 NOT NULL,
    parts integer DEFAULT 0 NOT NULL,
    problem text DEFAULT ''::text NOT NULL,
    lost text DEFAULT ''::text NOT NULL,
    made text,
    begun_at timestamp with time zone DEFAULT now() NOT NULL,
    CONSTRAINT works_state_check CHECK ((state = ANY (ARRAY['waiting'::text, 'running'::text, 'done'::text, 'failed'::text])))
);

COMMENT ON TABLE public.works IS 'Sites that are made in the background, of a file in the media folder or of another site (source), for who wants them: how far that has come, and what became of it.';

ALTER TABLE ONLY public.attempts
    ADD CONSTRAINT attempts_pkey PRIMARY KEY (key);

ALTER TABLE ONLY public.audit
    ADD CONSTRAINT audit_pkey PRIMARY KEY (id);

ALTER TABLE ONLY public.counts
    ADD CONSTRAINT counts_pkey PRIMARY KEY (site_id, what, day, key);

ALTER TABLE ONLY public.domains
    ADD CONSTRAINT domains_pkey PRIMARY KEY (host, site_id);

ALTER TABLE ONLY public.editions
    ADD CONSTRAINT editions_pkey PRIMARY KEY (page_id);

ALTER TABLE ONLY public.entry_notes
    ADD CONSTRAINT entry_notes_pkey PRIMARY KEY (id);

ALTER TABLE ONLY public.entry_reads
    ADD CONSTRAINT entry_reads_pkey PRIMARY KEY (user_id, entry_id);

ALTER TABLE ONLY public.form_entries
    ADD CONSTRAINT form_entries_pkey PRIMARY KEY (id);

ALTER TABLE ONLY public.form_settings
    ADD CONSTRAINT form_settings_pkey PRIMARY KEY (site_id, form);

ALTER TABLE ONLY public.former_addresses
    ADD CONSTRAINT former_addresses_pkey PRIMARY KEY (slug);

ALTER TABLE ONLY public.house_log
    ADD CONSTRAINT house_log_pkey PRIMARY KEY (site_id, version);

ALTER TABLE ONLY public.invitations
    ADD CONSTRAINT invitations_pkey PRIMARY KEY (id);

ALTER TABLE ONLY public.invitations
    ADD CONSTRAINT invitations_site_id_email_key UNIQUE (site_id, email);

ALTER TABLE ONLY public.invitations
    ADD CONSTRAINT invitations_token_key UNIQUE (token);

ALTER TABLE ONLY public.kept_houses
    ADD CONSTRAINT kept_houses_pkey PRIMARY KEY (id);

ALTER TABLE ONLY public.kept_sections
    ADD CONSTRAINT kept_sections_pkey PRIMARY KEY (id);

ALTER TABLE ONLY public.mails
    ADD CONSTRAINT mails_pkey PRIMARY KEY (id);

ALTER TABLE ONLY public.media
    ADD CONSTRAINT media_pkey PRIMARY KEY (id);

ALTER TABLE ONLY public.members
    ADD CONSTRAINT members_pkey PRIMARY KEY (site_id, user_id);

ALTER TABLE ONLY public.milestones
    ADD CONSTRAINT milestones_pkey PRIMARY KEY (name);

ALTER TABLE ONLY public.page_docs
    ADD CONSTRAINT page_docs_pkey PRIMARY KEY (page_id, seq);

ALTER TABLE ONLY public.page_drawings
    ADD CONSTRAINT page_drawings_pkey PRIMARY KEY (page_id);

ALTER TABLE ONLY public.page_findings
    ADD CONSTRAINT page_findings_pkey PRIMARY KEY (page_id);

ALTER TABLE ONLY public.page_log
    ADD CONSTRAINT page_log_pkey PRIMARY KEY (page_id, seq);

ALTER TABLE ONLY public.page_snapshots
    ADD CONSTRAINT page_snapshots_pkey PRIMARY KEY (page_id, seq, name);

ALTER TABLE ONLY public.pages
    ADD CONSTRAINT pages_address EXCLUDE USING btree (site_id WITH =, slug WITH =) WHERE ((deleted_at IS NULL)) DEFERRABLE INITIALLY DEFERRED;

ALTER TABLE ONLY public.pages
    ADD CONSTRAINT pages_pkey PRIMARY KEY (id);

ALTER TABLE ONLY public.picture_work
    ADD CONSTRAINT picture_work_pkey PRIMARY KEY (site_id, user_id, hour);

ALTER TABLE ONLY public.plans
    ADD CONSTRAINT plans_pkey PRIMARY KEY (id);

ALTER TABLE ONLY public.previews
    ADD CONSTRAINT previews_pkey PRIMARY KEY (id);

ALTER TABLE ONLY public.previews
    ADD CONSTRAINT previews_token_key UNIQUE (token);

ALTER TABLE ONLY public.processes
    ADD CONSTRAINT processes_pkey PRIMARY KEY (id);

ALTER TABLE ONLY public.published
    ADD CONSTRAINT published_pkey PRIMARY KEY (page_id);

ALTER TABLE ONLY public.quiet_findings
    ADD CONSTRAINT quiet_findings_pkey PRIMARY KEY (page_id, rule, node, other, part);

ALTER TABLE ONLY public.redirects
    ADD CONSTRAINT redirects_pkey PRIMARY KEY (site_id, address);

ALTER TABLE ONLY public.releases
    ADD CONSTRAINT releases_pkey PRIMARY KEY (site_id, number);

ALTER TABLE ONLY public.salts
    ADD CONSTRAINT salts_pkey PRIMARY KEY (day);

ALTER TABLE ONLY public.sessions
    ADD CONSTRAINT sessions_pkey PRIMARY KEY (token);

ALTER TABLE ONLY public.shelf_uses
    ADD CONSTRAINT shelf_uses_pkey PRIMARY KEY (user_id, item);

ALTER TABLE ONLY public.site_fonts
    ADD CONSTRAINT site_fonts_pkey PRIMARY KEY (id);

ALTER TABLE ONLY public.site_fonts
    ADD CONSTRAINT site_fonts_site_id_family_italic_least_weight_most_weight_key UNIQUE (site_id, family, italic, least_weight, most_weight);

ALTER TABLE ONLY public.sites
    ADD CONSTRAINT sites_pkey PRIMARY KEY (id);

ALTER TABLE ONLY public.sweeps
    ADD CONSTRAINT sweeps_pkey PRIMARY KEY (site_id);

ALTER TABLE ONLY public.users
    ADD CONSTRAINT users_email_key UNIQUE (email);

ALTER TABLE ONLY public.users
    ADD CONSTRAINT users_pkey PRIMARY KEY (id);

ALTER TABLE ONLY public.versions
    ADD CONSTRAINT versions_pkey PRIMARY KEY (id);

ALTER TABLE ONLY public.visit_marks
    ADD CONSTRAINT visit_marks_pkey PRIMARY KEY (day, site_id, mark);

ALTER TABLE ONLY public.visits
    ADD CONSTRAINT visits_pkey PRIMARY KEY (page_id, day, width);

ALTER TABLE ONLY public.works
    ADD CONSTRAINT works_pkey PRIMARY KEY (id);

CREATE INDEX attempts_until ON public.attempts USING btree (until);

CREATE INDEX audit_at_idx ON public.audit USING btree (at);

CREATE INDEX audit_site_id_at_idx ON public.audit USING btree (site_id, at DESC);

CREATE INDEX copies_to ON public.mails USING btree (lower(recipient), made_at) WHERE (kind = 'copy'::text);

CREATE UNIQUE INDEX domains_proved ON public.domains USING btree (host) WHERE (found_at IS NOT NULL);

CREATE INDEX domains_site_id_idx ON public.domains USING btree (site_id);

CREATE INDEX entry_notes_of_entries ON public.entry_notes USING btree (entry_id, made_at);

CREATE INDEX entry_reads_of_entries ON public.entry_reads USING btree (entry_id);

CREATE INDEX form_entries_found ON public.form_entries USING gin (found);

CREATE UNIQUE INDEX form_entries_once ON public.form_entries USING btree (once) WHERE (once IS NOT NULL);

CREATE INDEX form_entries_site_id_form_sent_at_idx ON public.form_entries USING btree (site_id, form, sent_at DESC);

CREATE INDEX form_entries_site_id_sent_at_idx ON public.form_entries USING btree (site_id, sent_at DESC);

CREATE INDEX former_addresses_site_id_idx ON public.former_addresses USING btree (site_id);

CREATE INDEX house_log_act_idx ON public.house_log USING btree (act) WHERE (act IS NOT NULL);

CREATE INDEX invitations_made_by ON public.invitations USING btree (made_by);

CREATE INDEX kept_houses_site_id_created_at_idx ON public.kept_houses USING btree (site_id, created_at DESC);

CREATE INDEX kept_sections_owner_idx ON public.kept_sections USING btree (owner) WHERE (owner IS NOT NULL);

CREATE INDEX kept_sections_site_id_created_at_idx ON public.kept_sections USING btree (site_id, created_at DESC);

CREATE INDEX mails_of_entries ON public.mails USING btree (entry_id);

CREATE INDEX mails_of_sites ON public.mails USING btree (site_id, made_at DESC);

CREATE INDEX media_site_id_created_at_idx ON public.media USING btree (site_id, created_at DESC);

CREATE INDEX media_uploaded_by_idx ON public.media USING btree (uploaded_by);

CREATE INDEX members_user_id_idx ON public.members USING btree (user_id);

CREATE INDEX page_log_act_idx ON public.page_log USING btree (act) WHERE (act IS NOT NULL);

CREATE INDEX page_log_made_at_idx ON public.page_log USING btree (made_at);

CREATE INDEX page_log_page_id_user_id_seq_idx ON public.page_log USING btree (page_id, user_id, seq DESC) WHERE (NOT undone);

CREATE INDEX pages_begins_by ON public.pages USING btree (begins_by) WHERE (begins_by IS NOT NULL);

CREATE INDEX pages_deleted_at_idx ON public.pages USING btree (deleted_at) WHERE (deleted_at IS NOT NULL);

CREATE INDEX pages_media ON public.pages USING gin (media);

CREATE INDEX pages_shared_idx ON public.pages USING gin (shared);

CREATE INDEX pages_site_id_position_slug_idx ON public.pages USING btree (site_id, "position", slug);

CREATE INDEX plans_site_id_at_idx ON public.plans USING btree (site_id, at);

CREATE INDEX previews_site_id_made_at_idx ON public.previews USING btree (site_id, made_at DESC);

CREATE INDEX published_search_idx ON public.published USING gin (search);

CREATE INDEX published_site_id_idx ON public.published USING btree (site_id);

CREATE INDEX sessions_expiry_idx ON public.sessions USING btree (expiry);

CREATE UNIQUE INDEX sites_slug ON public.sites USING btree (slug) WHERE (deleted_at IS NULL);

CREATE INDEX versions_page_id_made_at_idx ON public.versions USING btree (page_id, made_at DESC) WHERE (page_id IS NOT NULL);

CREATE INDEX versions_site_id_made_at_idx ON public.versions USING btree (site_id, made_at DESC) WHERE (page_id IS NULL);

CREATE INDEX works_of_made ON public.works USING btree (made);

CREATE INDEX works_of_source ON public.works USING btree (source);

CREATE INDEX works_of_user ON public.works USING btree (user_id, begun_at);

ALTER TABLE ONLY public.audit
    ADD CONSTRAINT audit_site_id_fkey FOREIGN KEY (site_id) REFERENCES public.sites(id) ON DELETE SET NULL;

ALTER TABLE ONLY public.audit
    ADD CONSTRAINT audit_user_id_fkey FOREIGN KEY (user_id) REFERENCES public.users(id) ON DELETE SET NULL;

ALTER TABLE ONLY public.counts
    ADD CONSTRAINT counts_site_id_fkey FOREIGN KEY (site_id) REFERENCES public.sites(id) ON DELETE CASCADE;

ALTER TABLE ONLY public.domains
    ADD CONSTRAINT domains_site_id_fkey FOREIGN KEY (site_id) REFERENCES public.sites(id) ON DELETE CASCADE;

ALTER TABLE ONLY public.editions
    ADD CONSTRAINT editions_page_id_fkey FOREIGN KEY (page_id) REFERENCES public.pages(id) ON DELETE CASCADE;

ALTER TABLE ONLY public.entry_notes
    ADD CONSTRAINT entry_notes_entry_id_fkey FOREIGN KEY (entry_id) REFERENCES public.form_entries(id) ON DELETE CASCADE;

ALTER TABLE ONLY public.entry_notes
    ADD CONSTRAINT entry_notes_user_id_fkey FOREIGN KEY (user_id) REFERENCES public.users(id) ON DELETE SET NULL;

ALTER TABLE ONLY public.entry_reads
    ADD CONSTRAINT entry_reads_entry_id_fkey FOREIGN KEY (entry_id) REFERENCES public.form_entries(id) ON DELETE CASCADE;

ALTER TABLE ONLY public.entry_reads
    ADD CONSTRAINT entry_reads_user_id_fkey FOREIGN KEY (user_id) REFERENCES public.users(id) ON DELETE CASCADE;

ALTER TABLE ONLY public.form_entries
    ADD CONSTRAINT form_entries_assigned_to_fkey FOREIGN KEY (assigned_to) REFERENCES public.users(id) ON DELETE SET NULL;

ALTER TABLE ONLY public.form_entries
    ADD CONSTRAINT form_entries_site_id_fkey FOREIGN KEY (site_id) REFERENCES public.sites(id) ON DELETE CASCADE;

ALTER TABLE ONLY public.form_settings
    ADD CONSTRAINT form_settings_site_id_fkey FOREIGN KEY (site_id) REFERENCES public.sites(id) ON DELETE CASCADE;

ALTER TABLE ONLY public.former_addresses
    ADD CONSTRAINT former_addresses_site_id_fkey FOREIGN KEY (site_id) REFERENCES public.sites(id) ON DELETE CASCADE;

ALTER TABLE ONLY public.house_log
    ADD CONSTRAINT house_log_site_id_fkey FOREIGN KEY (site_id) REFERENCES public.sites(id) ON DELETE CASCADE;

ALTER TABLE ONLY public.house_log
    ADD CONSTRAINT house_log_user_id_fkey FOREIGN KEY (user_id) REFERENCES public.users(id) ON DELETE SET NULL;

ALTER TABLE ONLY public.invitations
    ADD CONSTRAINT invitations_made_by_fkey FOREIGN KEY (made_by) REFERENCES public.users(id) ON DELETE CASCADE;

ALTER TABLE ONLY public.invitations
    ADD CONSTRAINT invitations_site_id_fkey FOREIGN KEY (site_id) REFERENCES public.sites(id) ON DELETE CASCADE;

ALTER TABLE ONLY public.kept_houses
    ADD CONSTRAINT kept_houses_site_id_fkey FOREIGN KEY (site_id) REFERENCES public.sites(id) ON DELETE CASCADE;

ALTER TABLE ONLY public.kept_sections
    ADD CONSTRAINT kept_sections_owner_fkey FOREIGN KEY (owner) REFERENCES public.users(id) ON DELETE SET NULL;

ALTER TABLE ONLY public.kept_sections
    ADD CONSTRAINT kept_sections_site_id_fkey FOREIGN KEY (site_id) REFERENCES public.sites(id) ON DELETE CASCADE;

ALTER TABLE ONLY public.mails
    ADD CONSTRAINT mails_entry_id_fkey FOREIGN KEY (entry_id) REFERENCES public.form_entries(id) ON DELETE CASCADE;

ALTER TABLE ONLY public.mails
    ADD CONSTRAINT mails_made_by_fkey FOREIGN KEY (made_by) REFERENCES public.users(id) ON DELETE SET NULL;

ALTER TABLE ONLY public.mails
    ADD CONSTRAINT mails_site_id_fkey FOREIGN KEY (site_id) REFERENCES public.sites(id) ON DELETE CASCADE;

ALTER TABLE ONLY public.media
    ADD CONSTRAINT media_site_id_fkey FOREIGN KEY (site_id) REFERENCES public.sites(id) ON DELETE CASCADE;

ALTER TABLE ONLY public.media
    ADD CONSTRAINT media_uploaded_by_fkey FOREIGN KEY (uploaded_by) REFERENCES public.users(id) ON DELETE SET NULL;

ALTER TABLE ONLY public.members
    ADD CONSTRAINT members_site_id_fkey FOREIGN KEY (site_id) REFERENCES public.sites(id) ON DELETE CASCADE;

ALTER TABLE ONLY public.members
    ADD CONSTRAINT members_user_id_fkey FOREIGN KEY (user_id) REFERENCES public.users(id) ON DELETE CASCADE;

ALTER TABLE ONLY public.page_docs
    ADD CONSTRAINT page_docs_page_id_fkey FOREIGN KEY (page_id) REFERENCES public.pages(id) ON DELETE CASCADE;

ALTER TABLE ONLY public.page_drawings
    ADD CONSTRAINT page_drawings_page_id_fkey FOREIGN KEY (page_id) REFERENCES public.pages(id) ON DELETE CASCADE;

ALTER TABLE ONLY public.page_findings
    ADD CONSTRAINT page_findings_page_id_fkey FOREIGN KEY (page_id) REFERENCES public.pages(id) ON DELETE CASCADE;

ALTER TABLE ONLY public.page_log
    ADD CONSTRAINT page_log_page_id_fkey FOREIGN KEY (page_id) REFERENCES public.pages(id) ON DELETE CASCADE;

ALTER TABLE ONLY public.page_log
    ADD CONSTRAINT page_log_user_id_fkey FOREIGN KEY (user_id) REFERENCES public.users(id) ON DELETE SET NULL;

ALTER TABLE ONLY public.page_snapshots
    ADD CONSTRAINT page_snapshots_page_id_fkey FOREIGN KEY (page_id) REFERENCES public.pages(id) ON DELETE CASCADE;

ALTER TABLE ONLY public.pages
    ADD CONSTRAINT pages_begins_by_fkey FOREIGN KEY (begins_by) REFERENCES public.users(id) ON DELETE SET NULL;

ALTER TABLE ONLY public.pages
    ADD CONSTRAINT pages_parent_fkey FOREIGN KEY (parent) REFERENCES public.pages(id) ON DELETE SET NULL;

ALTER TABLE ONLY public.pages
    ADD CONSTRAINT pages_site_id_fkey FOREIGN KEY (site_id) REFERENCES public.sites(id) ON DELETE CASCADE;

ALTER TABLE ONLY public.picture_work
    ADD CONSTRAINT picture_work_site_id_fkey FOREIGN KEY (site_id) REFERENCES public.sites(id) ON DELETE CASCADE;

ALTER TABLE ONLY public.plans
    ADD CONSTRAINT plans_made_by_fkey FOREIGN KEY (made_by) REFERENCES public.users(id) ON DELETE SET NULL;

ALTER TABLE ONLY public.plans
    ADD CONSTRAINT plans_site_id_fkey FOREIGN KEY (site_id) REFERENCES public.sites(id) ON DELETE CASCADE;

ALTER TABLE ONLY public.previews
    ADD CONSTRAINT previews_made_by_fkey FOREIGN KEY (made_by) REFERENCES public.users(id) ON DELETE CASCADE;

ALTER TABLE ONLY public.previews
    ADD CONSTRAINT previews_page_id_fkey FOREIGN KEY (page_id) REFERENCES public.pages(id) ON DELETE CASCADE;

ALTER TABLE ONLY public.previews
    ADD CONSTRAINT previews_site_id_fkey FOREIGN KEY (site_id) REFERENCES public.sites(id) ON DELETE CASCADE;

ALTER TABLE ONLY public.published
    ADD CONSTRAINT published_page_id_fkey FOREIGN KEY (page_id) REFERENCES public.pages(id) ON DELETE CASCADE;

ALTER TABLE ONLY public.published
    ADD CONSTRAINT published_site_id_fkey FOREIGN KEY (site_id) REFERENCES public.sites(id) ON DELETE CASCADE;

ALTER TABLE ONLY public.quiet_findings
    ADD CONSTRAINT quiet_findings_page_id_fkey FOREIGN KEY (page_id) REFERENCES public.pages(id) ON DELETE CASCADE;

ALTER TABLE ONLY public.quiet_findings
    ADD CONSTRAINT quiet_findings_said_by_fkey FOREIGN KEY (said_by) REFERENCES public.users(id) ON DELETE SET NULL;

ALTER TABLE ONLY public.redirects
    ADD CONSTRAINT redirects_page_id_fkey FOREIGN KEY (page_id) REFERENCES public.pages(id) ON DELETE CASCADE;

ALTER TABLE ONLY public.redirects
    ADD CONSTRAINT redirects_site_id_fkey FOREIGN KEY (site_id) REFERENCES public.sites(id) ON DELETE CASCADE;

ALTER TABLE ONLY public.releases
    ADD CONSTRAINT releases_made_by_fkey FOREIGN KEY (made_by) REFERENCES public.users(id) ON DELETE SET NULL;

ALTER TABLE ONLY public.releases
    ADD CONSTRAINT releases_site_id_fkey FOREIGN KEY (site_id) REFERENCES public.sites(id) ON DELETE CASCADE;

ALTER TABLE ONLY public.shelf_uses
    ADD CONSTRAINT shelf_uses_user_id_fkey FOREIGN KEY (user_id) REFERENCES public.users(id) ON DELETE CASCADE;

ALTER TABLE ONLY public.site_fonts
    ADD CONSTRAINT site_fonts_site_id_fkey FOREIGN KEY (site_id) REFERENCES public.sites(id) ON DELETE CASCADE;

ALTER TABLE ONLY public.sweeps
    ADD CONSTRAINT sweeps_site_id_fkey FOREIGN KEY (site_id) REFERENCES public.sites(id) ON DELETE CASCADE;

ALTER TABLE ONLY public.versions
    ADD CONSTRAINT versions_made_by_fkey FOREIGN KEY (made_by) REFERENCES public.users(id) ON DELETE SET NULL;

ALTER TABLE ONLY public.versions
    ADD CONSTRAINT versions_page_id_fkey FOREIGN KEY (page_id) REFERENCES public.pages(id) ON DELETE CASCADE;

ALTER TABLE ONLY public.versions
    ADD CONSTRAINT versions_site_id_fkey FOREIGN KEY (site_id) REFERENCES public.sites(id) ON DELETE CASCADE;

ALTER TABLE ONLY public.visits
    ADD CONSTRAINT visits_page_id_fkey FOREIGN KEY (page_id) REFERENCES public.pages(id) ON DELETE CASCADE;

ALTER TABLE ONLY public.works
    ADD CONSTRAINT works_made_fkey FOREIGN KEY (made) REFERENCES public.sites(id) ON DELETE CASCADE;

ALTER TABLE ONLY public.works
    ADD CONSTRAINT works_source_fkey FOREIGN KEY (source) REFERENCES public.sites(id) ON DELETE CASCADE;

ALTER TABLE ONLY public.works
    ADD CONSTRAINT works_user_id_fkey FOREIGN KEY (user_id) REFERENCES public.users(id) ON DELETE CASCADE;
