"""The web's side of the program: thin routes over the core, the store and the formats."""
