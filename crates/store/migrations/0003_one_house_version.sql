-- One number for rules, stores, tariffs and presets together: it counts up with every change of any of them.
-- A change takes this row first and shipments never; whoever writes a plan holds it still for reading, then
-- takes its shipment. So locks are always taken in one order.
CREATE TABLE house (
    studio_id uuid PRIMARY KEY REFERENCES studio (id) ON DELETE CASCADE,
    version integer NOT NULL DEFAULT 1 CHECK (version > 0)
);
INSERT INTO house (studio_id) SELECT id FROM studio;

-- The house that a plan was worked out by; 0 is worked out again whatever it was.
ALTER TABLE shipment ADD COLUMN house_version integer NOT NULL DEFAULT 0;
-- Where it is kept: on the bench, in the archive (it keeps the plan that it had), or in the bin.
ALTER TABLE shipment ADD COLUMN place text NOT NULL DEFAULT 'bench' CHECK (place IN ('bench', 'archive', 'bin'));
-- Somebody is working it out until then, by that house; a process that was killed frees it by its silence.
ALTER TABLE shipment ADD COLUMN claimed_until timestamptz;
ALTER TABLE shipment ADD COLUMN claimed_for integer NOT NULL DEFAULT 0;

-- What the bench is searched and sorted by.
ALTER TABLE shipment ADD COLUMN title text NOT NULL DEFAULT '';
ALTER TABLE shipment ADD COLUMN buyer text NOT NULL DEFAULT '';
ALTER TABLE shipment ADD COLUMN found_by text NOT NULL DEFAULT '';
UPDATE shipment SET
    title = coalesce(inputs->>'title', ''),
    buyer = coalesce(inputs->'buyer'->>'name', ''),
    found_by = lower(concat_ws(' ', inputs->>'title', inputs->'buyer'->>'name', inputs->'buyer'->>'town'))
FROM shipment_state
WHERE shipment_state.studio_id = shipment.studio_id AND shipment_id = shipment.id AND state = at_state;

DROP INDEX shipment_by_promise;
CREATE INDEX shipment_by_promise ON shipment (studio_id, place, coalesce(promised, 'infinity'::date), created_at, id);
CREATE INDEX shipment_behind ON shipment (studio_id, house_version) WHERE place = 'bench' OR house_version = 0;

-- The shape of the inputs of a state; they are brought up to date when read.
ALTER TABLE shipment_state ADD COLUMN schema integer NOT NULL DEFAULT 1;

-- Every change that was made, by the id that the page gave it: one whose answer was lost and that is sent again
-- is known by it.
CREATE TABLE shipment_edit (
    studio_id uuid NOT NULL,
    shipment_id uuid NOT NULL,
    edit_id uuid NOT NULL,
    made_at timestamptz NOT NULL DEFAULT now(),
    PRIMARY KEY (studio_id, shipment_id, edit_id),
    FOREIGN KEY (studio_id, shipment_id) REFERENCES shipment (studio_id, id) ON DELETE CASCADE
);
