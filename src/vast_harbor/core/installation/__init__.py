"""What holds and joins a bank: cables, wiring, boxes in a locker, load on the axles."""
