"""What every part of the web stands on: blueprint, errors, database, answers."""
