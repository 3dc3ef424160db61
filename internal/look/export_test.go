package look

// Slots is open to tests.
var Slots = slots
