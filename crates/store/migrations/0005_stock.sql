-- What is on the shelf, counted in whole sheets, millimetres, grams or pieces, so that all that was taken can be given back.
CREATE TABLE stock (
    studio_id uuid NOT NULL REFERENCES studio (id) ON DELETE CASCADE,
    id uuid NOT NULL,
    -- One count for each material and size; an offcut and a carton are each their own.
    key text,
    goods jsonb NOT NULL,
    name text NOT NULL DEFAULT '',
    place text NOT NULL DEFAULT '',
    left_count bigint NOT NULL CHECK (left_count >= 0),
    made_at timestamptz NOT NULL DEFAULT clock_timestamp(),
    PRIMARY KEY (studio_id, id),
    UNIQUE (studio_id, key)
);

-- What became of it, count by count.
CREATE TABLE stock_event (
    studio_id uuid NOT NULL,
    stock_id uuid NOT NULL,
    id bigint GENERATED ALWAYS AS IDENTITY,
    change bigint NOT NULL,
    left_count bigint NOT NULL,
    why text NOT NULL,
    about text NOT NULL DEFAULT '',
    at timestamptz NOT NULL DEFAULT clock_timestamp(),
    PRIMARY KEY (studio_id, id),
    FOREIGN KEY (studio_id, stock_id) REFERENCES stock (studio_id, id) ON DELETE CASCADE
);
CREATE INDEX stock_event_of ON stock_event (studio_id, stock_id, id);

-- The number that is written on the next offcut.
CREATE TABLE offcut_number (
    studio_id uuid PRIMARY KEY REFERENCES studio (id) ON DELETE CASCADE,
    next integer NOT NULL
);

-- Layouts of one shipment's parts, or of several that are cut together.
CREATE TABLE cutting (
    studio_id uuid NOT NULL REFERENCES studio (id) ON DELETE CASCADE,
    id uuid NOT NULL,
    body jsonb NOT NULL,
    made_at timestamptz NOT NULL DEFAULT clock_timestamp(),
    PRIMARY KEY (studio_id, id)
);

-- Sheets that were cut: what each was drawn from, and what was kept of it.
CREATE TABLE cutting_sheet (
    studio_id uuid NOT NULL,
    cutting_id uuid NOT NULL,
    n integer NOT NULL,
    drawn uuid,
    kept uuid[] NOT NULL DEFAULT '{}',
    done_at timestamptz NOT NULL DEFAULT clock_timestamp(),
    PRIMARY KEY (studio_id, cutting_id, n),
    FOREIGN KEY (studio_id, cutting_id) REFERENCES cutting (studio_id, id) ON DELETE CASCADE
);

-- What was taken off the shelf when packing began.
CREATE TABLE taken (
    studio_id uuid NOT NULL,
    shipment_id uuid NOT NULL,
    lines jsonb NOT NULL,
    at timestamptz NOT NULL DEFAULT clock_timestamp(),
    PRIMARY KEY (studio_id, shipment_id),
    FOREIGN KEY (studio_id, shipment_id) REFERENCES shipment (studio_id, id) ON DELETE CASCADE
);
