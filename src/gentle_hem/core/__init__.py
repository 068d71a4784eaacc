"""The trade: measures, pieces, seams and the arithmetic between them. No web, database, files or clock."""
