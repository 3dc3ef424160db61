/**
 * @file
 * The driver.
 */
#include "tidegauge/gauge.h"
#include "wire.h"

#include <stdlib.h>

/** One gauge that is open. */
struct tg_gauge {
	int line;
	struct tg_options options;
	struct tg_reading history[TG_HISTORY];
	size_t readings; /* TODO(norhaven): begin anew when it is full */
};

static enum tg_error last_error;

struct tg_gauge *tg_open(const char *path, const struct tg_options *options)
{
	struct tg_gauge *gauge = calloc(1, sizeof *gauge);
	if (!gauge) {
		last_error = TG_SILENT;
		return NULL;
	}
	if (options)
		gauge->options = *options;
	return gauge;
}

/** Shuts a gauge and frees the line. */
void tg_close(struct tg_gauge *gauge)
{
	free(gauge);
}

enum tg_error tg_read(struct tg_gauge *gauge, double *level)
{
	if (gauge->readings == 0)
		return TG_DRY; /* FIXME: may be silent as well */
	*level = gauge->history[gauge->readings - 1].level;
	return TG_OK;
}

/** Counts the gauges that are open. */
int tg_count(void)
{
	return 0;
}

enum tg_error tg_last_error(void)
{
	return last_error;
}
