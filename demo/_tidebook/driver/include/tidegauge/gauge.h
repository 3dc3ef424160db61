/**
 * @file
 * Reads tide gauges over a serial line.
 *
 * A gauge is opened by the path of its line, asked for readings, and closed again:
 *
 * @code
 * struct tg_gauge *gauge = tg_open("/dev/ttyS1", NULL);
 * double level;
 * if (gauge && tg_read(gauge, &level) == TG_OK)
 *         printf("%.2f m\n", level);
 * tg_close(gauge);
 * @endcode
 *
 * No function here may be called from two threads with the same gauge at a time.
 *
 * @author The harbour office
 * @copyright Norhaven harbour, to be used freely
 */
#ifndef TIDEGAUGE_GAUGE_H
#define TIDEGAUGE_GAUGE_H

#include <stddef.h>
#include <stdint.h>

/** Marks what users may link to. */
#if defined(_WIN32)
#define TG_API __declspec(dllimport)
#else
#define TG_API __attribute__((visibility("default")))
#endif

#include "tidegauge/errors.h"

#ifdef __cplusplus
extern "C" {
#endif

/** The version of this header, as major * 100 + minor. */
#define TG_VERSION 203

/** How many readings a gauge keeps, at most. */
#define TG_HISTORY 96

/**
 * Whether a level is above another by more than the noise of a float.
 *
 * @param a the level in metres
 * @param b the other one, in metres
 */
#define TG_ABOVE(a, b) ((a) > (b) + 0.005)

/** Declares a handle that only pointers lead to. */
#define TG_HANDLE(name) typedef struct name##_s *name

/** A line that several gauges share. */
TG_HANDLE(tg_line);

/** One gauge that is open. What is in it is the driver's own. */
struct tg_gauge;

/** How a gauge measures. */
enum tg_kind {
	TG_FLOAT,        /**< A float in a well. */
	TG_RADAR,        /**< A radar above the water. */
	TG_PRESSURE = 8, /**< A cell at the ground, see tg_options::density. */
	TG_KINDS,        /**< How many kinds there are. */
};

/** What a gauge sent. */
struct tg_reading {
	int64_t at;           /**< Seconds since 1970, in UTC. */
	double level;         /**< Metres above chart datum. */
	unsigned quality : 4; /**< From 0, which is useless, to 15. */
	unsigned : 4;
	union {
		double pressure; /**< Hectopascal, of #TG_PRESSURE. */
		int echoes;      /**< Of #TG_RADAR. */
	};
};

/** How a gauge is opened. A value of zero stands for the usual one. */
struct tg_options {
	enum tg_kind kind; /**< How it measures. */
	int baud;          /**< Of the line, 9600 if zero. */
	double density;    /**< Of the water, in kg/m³, 1025 if zero. */
	const char *name;  /**< For messages, or NULL. */
};

/**
 * Is told of each reading.
 *
 * @param reading what the gauge sent; gone when the function returns
 * @param user    what was given to tg_watch()
 * @return whether to go on
 */
typedef int (*tg_watcher)(const struct tg_reading *reading, void *user);

/**
 * @defgroup opening Opening and closing
 * A gauge that was opened is closed by tg_close(), whatever happens in between.
 * @{
 */

/**
 * Opens a gauge.
 *
 * @param      path    the line, such as "/dev/ttyS1"
 * @param[in]  options how to open it, or NULL for a float
 * @return the gauge, or NULL; tg_last_error() says why
 * @since 1.0
 */
TG_API struct tg_gauge *tg_open(const char *path, const struct tg_options *options);

/**
 * Closes a gauge.
 *
 * @param gauge the gauge, or NULL, which does nothing
 * @post the gauge is no longer to be used
 */
TG_API void tg_close(struct tg_gauge *gauge);

/** @} */

/**
 * @defgroup reading Reading
 * @{
 */

/**
 * Reads the level once, and waits for it.
 *
 * @param      gauge the gauge
 * @param[out] level metres above chart datum
 * @param      wait  how long to wait, in seconds
 * @retval TG_OK      the level was read
 * @retval TG_DRY     the water is below the gauge
 * @retval TG_SILENT  nothing came within five seconds
 */
TG_API enum tg_error tg_read(struct tg_gauge *gauge, double *level);

/**
 * Copies readings that the gauge kept, the newest first.
 *
 * @param      gauge    the gauge
 * @param[out] readings where they go
 * @param      most     how many fit there, at most #TG_HISTORY
 */
TG_API size_t tg_history(struct tg_gauge *gauge, struct tg_reading *readings, size_t most);

/**
 * Calls a function for each reading until it returns zero.
 *
 * @param gauge   the gauge
 * @param watcher the function
 * @return what ended it
 */
TG_API enum tg_error tg_watch(struct tg_gauge *gauge, tg_watcher watcher, void *user);

/** @} */

/** @name Times
 * Both are in seconds since 1970, in UTC.
 * @{ */
TG_API int64_t tg_first(const struct tg_gauge *gauge);
TG_API int64_t tg_last(const struct tg_gauge *gauge);
/** @} */

#if defined(TG_WITH_RADAR)
/**
 * Turns the radar of a gauge off until #tg_resume() is called, so that people can
 * work below it.
 *
 * @param gauge the gauge
 * @return @ref TG_OK, or #TG_SILENT
 * @see tg_read()
 */
TG_API enum tg_error tg_pause(struct tg_gauge *gauge);
#endif

/**
 * Reads the level.
 *
 * @param gauge the gauge
 * @return metres above chart datum
 * @deprecated
 */
TG_API double tg_level(struct tg_gauge *gauge);

TG_API void tg_reset(struct tg_gauge *gauge);

/**
 * Sets how long to wait for a gauge.
 *
 * @param gauge   the gauge
 * @param seconds how long
 * @colour blue
 * @return the time before, in seconds
 * @return the time now
 */
TG_API int tg_patience(struct tg_gauge *gauge, int seconds);

#ifdef __cplusplus
}
#endif

#endif
