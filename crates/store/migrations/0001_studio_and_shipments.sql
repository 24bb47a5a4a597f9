-- A studio and what it works with. Every table that holds a studio's data names the studio.
CREATE TABLE studio (
    id uuid PRIMARY KEY,
    -- Name, town, unit and the countries it ships to.
    settings jsonb NOT NULL,
    created_at timestamptz NOT NULL DEFAULT now()
);

-- House rules are never changed in place: a stored plan names the version that it followed.
CREATE TABLE house_rules (
    studio_id uuid NOT NULL REFERENCES studio (id) ON DELETE CASCADE,
    version integer NOT NULL CHECK (version > 0),
    rules jsonb NOT NULL,
    made_at timestamptz NOT NULL DEFAULT now(),
    PRIMARY KEY (studio_id, version)
);

CREATE TABLE catalogue (
    studio_id uuid PRIMARY KEY REFERENCES studio (id) ON DELETE CASCADE,
    materials jsonb NOT NULL
);

CREATE TABLE tariff (
    studio_id uuid NOT NULL REFERENCES studio (id) ON DELETE CASCADE,
    id text NOT NULL,
    body jsonb NOT NULL,
    PRIMARY KEY (studio_id, id)
);

CREATE TABLE shipment (
    studio_id uuid NOT NULL REFERENCES studio (id) ON DELETE CASCADE,
    id uuid NOT NULL,
    -- Counts up with every edit, undo and redo; an edit says which version it was based on.
    version integer NOT NULL DEFAULT 1 CHECK (version > 0),
    -- The state of its history that it stands at.
    at_state integer NOT NULL DEFAULT 0 CHECK (at_state >= 0),
    -- What was computed for that state, kept as it was computed.
    worked jsonb NOT NULL,
    summary jsonb,
    rules_version integer NOT NULL,
    promised date,
    created_at timestamptz NOT NULL DEFAULT now(),
    changed_at timestamptz NOT NULL DEFAULT now(),
    PRIMARY KEY (studio_id, id),
    FOREIGN KEY (studio_id, rules_version) REFERENCES house_rules (studio_id, version)
);

CREATE INDEX shipment_by_promise ON shipment (studio_id, promised, created_at);

-- Every state that a shipment's inputs had, so that undo survives a reload.
CREATE TABLE shipment_state (
    studio_id uuid NOT NULL,
    shipment_id uuid NOT NULL,
    state integer NOT NULL CHECK (state >= 0),
    inputs jsonb NOT NULL,
    made_at timestamptz NOT NULL DEFAULT now(),
    PRIMARY KEY (studio_id, shipment_id, state),
    FOREIGN KEY (studio_id, shipment_id) REFERENCES shipment (studio_id, id) ON DELETE CASCADE
);
