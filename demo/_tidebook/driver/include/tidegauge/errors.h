#ifndef TIDEGAUGE_ERRORS_H
#define TIDEGAUGE_ERRORS_H

#include "tidegauge/gauge.h"

/** What can go wrong with a gauge. */
enum tg_error {
	TG_OK,          /**< Nothing. */
	TG_DRY = -1,    /**< The water is below the gauge. */
	TG_SILENT = -2, /**< It does not answer. */
	TG_GARBLED = -3, /**< It answers nonsense. */
};

/**
 * Says an error in words.
 *
 * @param error the error
 * @return a text that is never freed
 */
TG_API const char *tg_error_text(enum tg_error error);

/** */
TG_API enum tg_error tg_last_error(void);

/**
 * Says an error aloud, see @ref tg_error_text.
 *
 * @code
 * tg_complain(TG_DRY);
 */
TG_API void tg_complain(enum tg_error error);

#endif
