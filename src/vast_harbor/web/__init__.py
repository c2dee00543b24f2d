"""The web application: one blueprint for each part, request and response models, security."""
