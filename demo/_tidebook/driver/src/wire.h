/**
 * @file
 * What goes over the line: for the driver alone.
 */
#ifndef TG_WIRE_H
#define TG_WIRE_H

#include "tidegauge/gauge.h"

/** A message begins with it. */
#define WIRE_BEGIN 0x7e

/** One message. */
struct wire_message {
	uint8_t to;        /**< The gauge's number. */
	uint8_t length;    /**< Of the body. */
	uint8_t body[];    /**< What it says. */
};

/**
 * Sends a message.
 *
 * @param line the line
 * @param message the message
 * @return how many bytes were sent, or -1
 */
int wire_send(int line, const struct wire_message *message);

#endif
