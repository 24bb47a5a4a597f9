-- A carrier's own service: where it is, and what the studio is known by there. Never read out, and in no backup.
CREATE TABLE carrier_service (
    studio_id uuid NOT NULL REFERENCES studio (id) ON DELETE CASCADE,
    tariff text NOT NULL,
    address text NOT NULL,
    header text NOT NULL,
    key text NOT NULL,
    PRIMARY KEY (studio_id, tariff)
);
