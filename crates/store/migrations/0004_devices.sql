-- What lets a device of the local network in: the studio's passphrase, as argon2 keeps it.
CREATE TABLE passphrase (
    studio_id uuid PRIMARY KEY REFERENCES studio (id) ON DELETE CASCADE,
    hash text NOT NULL,
    changed_at timestamptz NOT NULL DEFAULT now()
);

-- Devices that gave it. Only a digest is kept of what a device shows to be known again.
CREATE TABLE device (
    id uuid PRIMARY KEY,
    studio_id uuid NOT NULL REFERENCES studio (id) ON DELETE CASCADE,
    name text NOT NULL,
    token_digest bytea NOT NULL UNIQUE CHECK (length(token_digest) = 32),
    signed_in_at timestamptz NOT NULL DEFAULT now(),
    seen_at timestamptz NOT NULL DEFAULT now()
);
CREATE INDEX device_of_studio ON device (studio_id, signed_in_at);
