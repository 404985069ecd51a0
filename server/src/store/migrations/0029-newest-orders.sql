-- Orders in the order in which they are shown: what was changed last first.
CREATE INDEX orders_by_change ON orders (changed_at, key);
