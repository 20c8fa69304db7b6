"""The made-up workshop that ships with the product: the Mudlark Flats bird count."""
