-- Photographs of a shipment. The picture itself lies where the studio keeps pictures, under its id; a row is there only once it does.
CREATE TABLE photograph (
    studio_id uuid NOT NULL,
    id uuid NOT NULL,
    shipment_id uuid NOT NULL,
    -- The key of the step at the bench that it was taken at.
    step text NOT NULL,
    taken_at text NOT NULL,
    width integer NOT NULL CHECK (width > 0),
    height integer NOT NULL CHECK (height > 0),
    bytes integer NOT NULL CHECK (bytes > 0),
    -- Of the file as it was sent, so that sending it again is told from sending another under its id.
    digest bytea NOT NULL,
    kept_at timestamptz NOT NULL DEFAULT clock_timestamp(),
    PRIMARY KEY (studio_id, id),
    FOREIGN KEY (studio_id, shipment_id) REFERENCES shipment (studio_id, id) ON DELETE CASCADE
);
CREATE INDEX photograph_of ON photograph (studio_id, shipment_id, taken_at, id);
