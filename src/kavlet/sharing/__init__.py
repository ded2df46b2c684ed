"""Two small services that ship with Kavlet and stay on this machine: an outbox for mails, a showcase for pages."""
