-- Surcharges became rules, of which they were the plainest kind; and each tariff counts up with its changes.
UPDATE tariff SET body = jsonb_set(body, '{services}', (
    SELECT coalesce(jsonb_agg(
        (service - 'surcharges') || jsonb_build_object('rules', (
            SELECT coalesce(jsonb_agg(jsonb_build_object(
                'name', rule -> 'name',
                'when', rule -> 'when',
                'what', jsonb_build_object('kind', 'sum', 'price', rule -> 'price')
            ) ORDER BY at), '[]')
            FROM jsonb_array_elements(coalesce(service -> 'surcharges', '[]')) WITH ORDINALITY AS known (rule, at)
        )) ORDER BY place
    ), '[]')
    FROM jsonb_array_elements(body -> 'services') WITH ORDINALITY AS offered (service, place)
));
ALTER TABLE tariff ADD COLUMN version integer NOT NULL DEFAULT 1 CHECK (version > 0);
