"""The stops of the passage: each puts the physics together and hangs the workings on its figures."""
