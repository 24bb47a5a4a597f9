-- A parcel that was handed over is on its way: it keeps the plan that it left with.
ALTER TABLE shipment DROP CONSTRAINT shipment_place_check;
ALTER TABLE shipment ADD CONSTRAINT shipment_place_check CHECK (place IN ('bench', 'sent', 'archive', 'bin'));
-- As it was handed over: what was planned, weighed and done by then, kept whatever becomes of the house.
ALTER TABLE shipment ADD COLUMN handed jsonb;
-- What it is followed by, where it was booked.
ALTER TABLE shipment ADD COLUMN tracking text;

-- What a carrier was asked to book. The row is written before the carrier is asked, with the very question, so that whoever finds it
-- without an answer asks again by the same id, and it is booked once.
CREATE TABLE booking (
    studio_id uuid NOT NULL,
    id uuid NOT NULL,
    shipment_id uuid NOT NULL,
    -- As gannet-post/parcel.
    service text NOT NULL,
    state text NOT NULL CHECK (state IN ('asked', 'booked', 'refused', 'cancelling', 'cancelled')),
    question jsonb NOT NULL,
    -- The day on which it is fetched or taken there.
    leaves_on date NOT NULL,
    -- What both addresses were known by.
    print text NOT NULL,
    -- What the carrier answered, and what it said of the parcel since.
    answer jsonb,
    events jsonb NOT NULL DEFAULT '[]',
    says text,
    asked_at timestamptz NOT NULL DEFAULT clock_timestamp(),
    PRIMARY KEY (studio_id, id),
    FOREIGN KEY (studio_id, shipment_id) REFERENCES shipment (studio_id, id) ON DELETE CASCADE
);
-- One at a time.
CREATE UNIQUE INDEX booking_of ON booking (studio_id, shipment_id) WHERE state IN ('asked', 'booked', 'cancelling');
CREATE INDEX booking_open ON booking (studio_id, asked_at) WHERE state IN ('asked', 'cancelling');

-- Name, address and card of a studio change too; and its own mark, as PNG.
ALTER TABLE studio ADD COLUMN settings_version integer NOT NULL DEFAULT 1;
ALTER TABLE studio ADD COLUMN mark bytea;
