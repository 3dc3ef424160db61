package site_test

import (
	"testing"
	"testing/fstest"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"codrel/internal/build"
	"codrel/internal/languages"
	"codrel/internal/model"
	"codrel/internal/settings"
)

// gaugeDriver is what natives write in C and C++: a header for users, one that is not, the source,
// and a simulation on top of it.
const gaugeDriver = `
-- CMakeLists.txt --
project(gauge VERSION 2.1 LANGUAGES C CXX)
-- include/tide/gauge.h --
/**
 * @file gauge.h
 * @brief Reads gauges of a harbour.
 *
 * Begin with gauge_open().
 */
#ifndef TIDE_GAUGE_H
#define TIDE_GAUGE_H
#include <stddef.h>
#ifdef __cplusplus
extern "C" {
#endif

/** The most gauges at a time. */
#define GAUGE_MAX 16
#define GAUGE_API __attribute__((visibility("default")))

/** A gauge that is open. */
typedef struct gauge gauge_t;

/** What a gauge said. */
typedef struct gauge_reading {
    double depth;   /**< In metres. */
    unsigned wet;   /**< Whether there is water. */
} gauge_reading;

/** How it went. */
typedef enum {
    GAUGE_OK,       /**< Well. */
    GAUGE_DRY = 2   /**< There was no water. */
} gauge_status;

/**
 * Opens a gauge, see #GAUGE_MAX and \ref gauge_close.
 *
 * @param[in] path where it is
 * @param[out] error what went wrong, or NULL
 * @return the gauge
 * @retval NULL there is none
 * @note Not for several threads.
 */
GAUGE_API gauge_t *gauge_open(const char *path, gauge_status *error);

GAUGE_API void gauge_close(gauge_t *g);
GAUGE_API void gauge_stop(void);

#if defined(GAUGE_FAST)
/** Reads @c n times. */
GAUGE_API gauge_status gauge_read(gauge_t *g, gauge_reading out[], size_t n);
#endif

/** Gone. @deprecated use gauge_open() */
GAUGE_API gauge_t *gauge_get(void);

#ifdef __cplusplus
}
#endif
#endif
-- src/private.h --
/** For the driver alone. */
int gauge_secret(void);
-- src/gauge.c --
#include "tide/gauge.h"
#include "private.h"

struct gauge { int fd; };

static int helper(void) { return gauge_secret(); }

gauge_t *gauge_open(const char *path, gauge_status *error) { return helper() ? 0 : gauge_get(); }

/**
 * Closes a gauge.
 * @param g the gauge
 */
void gauge_close(gauge_t *g) {}

int gauge_secret(void) { return 1; }
-- include/tide/sim.hpp --
#pragma once
#include <tide/gauge.h>
#include <vector>

/// Simulates harbours.
namespace tide::sim {

namespace detail { struct Hidden {}; }

/// What can be simulated.
class Model {
public:
    virtual ~Model() = default;
    /// Goes on by some time.
    /// \param seconds how far
    /// \return whether anything changed
    virtual bool step(double seconds) = 0;
protected:
    int steps_ = 0; ///< So far.
private:
    int own_;
};

/// A basin, see Model::step and \ref tide::sim::Model.
template <typename T>
class Basin final : public Model {
public:
    /// Makes one.
    explicit Basin(std::vector<T> depths);
    bool step(double seconds) override;
    /// Adds a depth.
    Basin &operator+=(const T &depth);
    /// \copydoc Model::step
    bool twice(double seconds);
};

/// Runs a model.
void run(Model &model, int times);
/// Runs one for as long as a reading says.
void run(Model &model, const gauge_reading &reading);

}
-- src/sim.cpp --
#include "tide/sim.hpp"

namespace tide::sim {
void run(Model &model, int times) { model.step(times); }
}
`

func TestSiteOfCAndPlus(t *testing.T) {
	files := archived(gaugeDriver)
	set := settings.Default()
	found := foundIn(t, files, set)
	assert.ElementsMatch(t, []string{
		"include/tide/gauge.h undocumented", // gauge_stop
	}, found)

	m := rendered(t, files, set, 2)
	requireSound(t, asFS(m))
	const root = "reference/gauge/"
	header := string(m.Get(root + "tide/gauge.h/index.html"))
	assert.Contains(t, header, `<span class="kind">header</span>`)
	assert.Contains(t, header, "#include &lt;tide/gauge.h&gt;")
	assert.Contains(t, header, "Reads gauges of a harbour.")
	assert.Contains(t, header, "Version 2.1")
	assert.Contains(t, header, "<dd>there is none</dd>", "values of the result have their text")
	for _, name := range []string{"gauge_open", "gauge_close", "gauge_read", "macro:GAUGE_MAX", "GAUGE_OK"} {
		assert.Contains(t, header+string(m.Get(root+"tide/gauge.h/gauge_status.html")), `id="`+name+`"`, name)
	}
	assert.Contains(t, between(t, header, `id="gauge_close"`, "</section>"), "Closes a gauge.", "the words stand with the body")
	assert.Contains(t, header, "defined(GAUGE_<wbr>FAST)")
	assert.NotContains(t, header, "gauge_secret")
	assert.NotContains(t, header, "private.h", "what is not for users has no page")
	assert.Nil(t, m.Get(root+"src/private.h/index.html"))
	assert.Contains(t, between(t, header, `id="gauge_get"`, "</section>"), "Deprecated", "a word counts in the middle of a line, too")
	reading := string(m.Get(root + "tide/gauge.h/gauge_reading.html"))
	assert.Contains(t, reading, "In metres.")
	assert.Contains(t, reading, "Whether there is water.")

	basin := string(m.Get(root + "tide~3a~~3a~sim/Basin.html"))
	if basin == "" {
		basin = string(m.Get(root + "tide/sim/Basin.html"))
	}
	require.NotEmpty(t, basin)
	assert.Contains(t, basin, "#include &lt;tide/sim.hpp&gt;")
	assert.Contains(t, basin, "operator+=")
	assert.Contains(t, basin, "Goes on by some time.", "text of the base, inherited and copied")
	assert.NotContains(t, basin, "own_")
}

// groupedHeaders are headers with groups, of which one is included by nothing.
const groupedHeaders = `
-- include/tide/gauge.h --
/** @file Reads gauges. */
#include <stdio.h>
#include "tide/low.h"
/** @defgroup opening Opening
 * Begin here, end with gauge_close().
 * @{ */
/** Opens. */
int gauge_open(void);
/** Closes. */
void gauge_close(void);
/** @} */
/** What it takes. */
struct gauge_limits {
  /** @name Levels
   * Both are in metres.
   * @{ */
  double low;
  double high;
  /** @} */
  /** Its kind. */
  int kind;
};
/** Reads. @ingroup opening */
int gauge_read(void);
-- include/tide/low.h --
#include "tide/lower.h"
/** The least. */
#define LEAST 1
-- include/tide/lower.h --
/** @file Lower still. */
/** The very least. */
#define VERY_LEAST 0
-- include/other/alone.h --
/** @mainpage Tide gauges
 * All about gauges, see gauge_open(). @subpage care and @ref opening. */

/** @page care How to care for gauges
 * Close what was opened, with gauge_close(). */

/** \page bare */

/** Alone. */
int alone(void);
-- src/gauge.c --
/** @file The driver. */
#include "tide/gauge.h"
int gauge_open(void) { return LEAST; }
`

func TestGroupsAndFiles(t *testing.T) {
	files := archived(groupedHeaders)
	m := rendered(t, files, settings.Default(), 2)
	requireSound(t, asFS(m))
	const root = "reference/project/"
	header := string(m.Get(root + "tide/gauge.h/index.html"))
	overview := between(t, header, `<h3 id="s--part-opening">Opening</h3>`, "<h3>Types</h3>")
	assert.Contains(t, overview, `<div class="prose grouped"><p>Begin here, end with <a href="#gauge_close">`, "the group's own text, with its link")
	for _, name := range []string{"gauge_open", "gauge_close", "gauge_read"} {
		assert.Contains(t, overview, name, "by marks, or by its name")
	}
	margin := between(t, header, `<div class="margin"`, "</div>")
	assert.Contains(t, margin, `Includes <a href="../low.h/index.html">`)
	assert.Contains(t, margin, `From elsewhere, includes <code translate="no">&lt;stdio.h&gt;</code>.`)
	assert.Contains(t, margin, `Through these, includes <a href="../lower.h/index.html">`)
	assert.Contains(t, margin, `Included by <code translate="no">src/gauge.c</code>.`)
	drawn := between(t, header, `<svg class="around"`, "</svg>")
	for _, file := range []string{"src/gauge.c", "tide/low.h", "tide/lower.h"} {
		assert.Contains(t, drawn, ">"+file+"</text>", "what is included through others is drawn, too")
	}
	limits := string(m.Get(root + "tide/gauge.h/gauge_limits.html"))
	assert.Contains(t, between(t, limits, ">Levels</h2>", ">Fields</h2>"), "<p>Both are in metres.</p>", "members have a text in common")
	assert.Contains(t, between(t, limits, ">Fields</h2>", "</article>"), "kind")

	library := string(m.Get(root + "index.html"))
	assert.Contains(t, library, `<p>All about gauges, see <a href="tide/gauge.h/index.html#gauge_open">`)
	assert.Contains(t, library, `<a href="#text-care">How to care for gauges</a> and <a href="tide/gauge.h/index.html#s--part-opening">Opening</a>.`, "what a reference shows is the title")
	texts := between(t, library, `<h2 id="texts">Texts</h2>`, `<h2 id="headers">`)
	assert.Contains(t, texts, `<li><a href="#text-care">How to care for gauges</a></li><li><a href="#text-bare">bare</a></li>`)
	assert.Contains(t, library, `<h2 id="text-care">How to care for gauges</h2><div class="prose"><p>Close what was opened, with <a href="tide/gauge.h/index.html#gauge_close">`)
	headers := between(t, library, `<h2 id="headers">Headers</h2>`, `<h2 id="source-files">`)
	assert.Contains(t, headers, `<h3><code translate="no">other/</code></h3>`)
	assert.Contains(t, between(t, headers, "alone.", "tide/"), "No file of the project includes it.")
	assert.NotContains(t, between(t, headers, "tide/", "</dl>"), "No file of the project includes it.")
	assert.Contains(t, headers, "Lower still.")
	sources := between(t, library, `<h2 id="source-files">`, `<h2 id="text-care">`)
	assert.Contains(t, sources, `<a href="../../source/src/gauge.c.html`)
	assert.Contains(t, sources, "The driver.")
}

// What settings say of macros and of comments is heard.
func TestSettingsOfHeaders(t *testing.T) {
	files := fstest.MapFS{
		"lib/a.h": {Data: []byte("TIDE_ENTER\n// Opens a gauge.\nint open_gauge(int port); // by its port\nTIDE_LEAVE\n/* The most. */\n#define MOST 3\n")},
		"c/b.h":   {Data: []byte("// Not for users.\nint shut_gauge(void);\n")},
		"c/b.c":   {Data: []byte("int x;\n")},
	}
	set, err := settings.Parse("codrel.yaml", []byte("read:\n  - {path: lib, language: cpp, comments: any, macros: {TIDE_ENTER: 'namespace tide {', TIDE_LEAVE: '}'}}\n  - {path: c}\n"), settings.Known{Languages: languages.Names()})
	require.NoError(t, err)
	s, err := build.Run(t.Context(), files, build.Options{Settings: set, FrontEnds: languages.All, Folder: "project", Jobs: 2})
	require.NoError(t, err)
	texts := map[string]string{}
	for _, lib := range s.Project.Libraries {
		for _, m := range lib.Modules {
			for d := range m.Declarations {
				if doc := d.Speaks(model.Words).Doc; doc != nil {
					texts[m.Path+" "+d.Path()] = doc.Text
				} else {
					texts[m.Path+" "+d.Path()] = ""
				}
			}
		}
	}
	assert.Equal(t, map[string]string{"tide open_gauge": "Opens a gauge.\n\nby its port", "a.h MOST": "The most.", "b.h shut_gauge": "", "b.c x": ""}, texts)
}
