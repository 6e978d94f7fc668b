"""What the reader sees and touches: Qt lives here, and only here."""
