-- Orders as the business's shop has them, read in from its tables; found by their number, and by whose they are.
CREATE TABLE orders (
  key TEXT PRIMARY KEY,
  number TEXT NOT NULL,
  email TEXT NOT NULL,
  email_key TEXT NOT NULL,
  phone TEXT NOT NULL,
  state TEXT NOT NULL,
  expected_on TEXT NOT NULL,
  link TEXT NOT NULL,
  changed_at INTEGER NOT NULL
) STRICT, WITHOUT ROWID;
CREATE INDEX orders_by_email ON orders (email_key, changed_at) WHERE email_key <> '';
CREATE INDEX orders_by_phone ON orders (phone, changed_at) WHERE phone <> '';

-- How many there are: counting them takes as long as reading them.
CREATE TABLE order_counts (
  id INTEGER PRIMARY KEY CHECK (id = 1),
  count INTEGER NOT NULL
) STRICT;
INSERT INTO order_counts VALUES (1, 0);
CREATE TRIGGER order_added AFTER INSERT ON orders BEGIN
  UPDATE order_counts SET count = count + 1;
END;
CREATE TRIGGER order_dropped AFTER DELETE ON orders BEGIN
  UPDATE order_counts SET count = count - 1;
END;

-- Where the shop is asked of orders that no table has; its key is sealed.
CREATE TABLE shop (
  id INTEGER PRIMARY KEY CHECK (id = 1),
  url TEXT NOT NULL,
  secret BLOB NOT NULL
) STRICT;
