package page_test

import "testing"

// What comments in Python say is what pages say, with what each name leads to.
func TestPythonWords(t *testing.T) {
	shows(t, spoken, []arrival{
		{"field lists and roles", `
-- pyproject.toml --
[project]
name = "port"
-- port.py --
"""Ports, see :class:` + "`" + `Berth` + "`" + ` and :func:` + "`" + `~port.moor` + "`" + `.

Heading
-------

Literal::

    moor("x")

* one
* two, :meth:` + "`" + `Berth.fits` + "`" + `

  - deeper

1. first
#. second

Term : classifier
    Its text.

.. note:: Mind the tide.

.. versionadded:: 1.2
   It is new.

.. code-block:: python

    import port

====  =====
low   high
====  =====
1     2
====  =====

A |sub| and a footnote [1]_, *em*, **strong**, ` + "`" + `` + "`" + `code` + "`" + `` + "`" + `, ` + "`" + `Title <https://x.example/>` + "`" + `_, ref_.

.. |sub| replace:: substitution
.. [1] The note.
.. _ref: https://x.example/ref
"""

class Berth:
    """A place.

    :ivar depth: how deep
    :vartype depth: float
    :cvar count: how many
    """
    depth = 1.0

    def fits(self, draught, *rest, **more):
        """Whether a vessel fits.

        :param float draught: what it needs,
            in metres
        :param rest: more
        :type rest: int
        :keyword wide: how wide
        :return: whether it does
        :rtype: bool
        :raises ValueError: where it is negative
        :raise KeyError: never

        .. deprecated:: 2.0
           Use :meth:` + "`" + `moor` + "`" + `.
        """

def moor(name): ":obj:` + "`" + `Berth` + "`" + ` by name; see :py:attr:` + "`" + `port.Berth.depth` + "`" + `, :term:` + "`" + `x` + "`" + `, :pep:` + "`" + `8` + "`" + ` and :ref:` + "`" + `heading <there>` + "`" + `."
`, `
== port
Ports, see [` + "`" + `Berth` + "`" + `](Berth) and [` + "`" + `moor` + "`" + `](moor).
# Heading (Heading)
Literal:
` + "`" + `` + "`" + `` + "`" + ` : "moor(\"x\")"
list from 0 false
  - one
  - two, [` + "`" + `Berth.fits` + "`" + `](Berth.fits)
    list from 0 false
      - deeper
list from 1 false
  - first
  - second
list from 0 termsfalse
  - *Term : classifier*
    Its text.
- 
  <note  false>
  Mind the tide.
<versionadded 1.2 true> It is new.
` + "`" + `` + "`" + `` + "`" + ` python: "import port"
|| low | high |
| 1 | 2 |
A substitution and a footnote^[1], _em_, *strong*, ` + "`" + `code` + "`" + `, [Title](https://x.example/), [ref](https://x.example/ref).
list from 0 footnotesfalse
  - *[1]* The note.
= Berth
A place.
part 6 
  depth (` + "`" + `float` + "`" + `): how deep
  count: how many
= Berth.fits
deprecated: Use [` + "`" + `moor` + "`" + `](moor).
Whether a vessel fits.
part 1 
  draught (` + "`" + `float` + "`" + `): what it needs,
in metres
  rest (` + "`" + `int` + "`" + `): more
  wide: how wide
part 2 
   (` + "`" + `bool` + "`" + `): whether it does
part 4 
  ValueError(): where it is negative
  KeyError(): never
= moor
` + "`" + `Berth` + "`" + `(Berth) by name; see [` + "`" + `port.Berth.depth` + "`" + `](Berth.depth), x, [PEP 8](https://peps.python.org/pep-0008/) and heading.
`},
		{"sections with underlines", `
-- pyproject.toml --
[project]
name = "port"
-- port.py --
"""Ports."""

def find(a, b=None, *args, **kwargs):
    """Find a berth.

    Longer text.

    Parameters
    ----------
    a : array_like of float, shape (n,)
        What it needs.

        Second paragraph.
    b : {'low', 'high'}, optional
        Which, by default None.
    *args, **kwargs
        Passed on.
    axis : int, default: 0

    Returns
    -------
    berth : Berth
        The one.
    int
        How many.

    Raises
    ------
    ValueError
        If there is none.
    KeyError, TypeError

    See Also
    --------
    moor : Moors it.
    Berth, port.Berth.fits

    Notes
    -----
    With math :math:` + "`" + `x^2` + "`" + ` and

    .. math:: y = x_1

    References
    ----------
    .. [1] A. Author, "Title".

    Examples
    --------
    >>> find(1)
    2

    And then:

    >>> find(3)
    4
    """

def moor():
    """Moor.

    Yields
    ------
    int
        Numbers.

    Warns
    -----
    UserWarning
        Sometimes.

    Warnings
    --------
    Mind it.
    """

class Berth:
    """A place.

    Attributes
    ----------
    depth : float
        How deep.

    Methods
    -------
    fits(draught)
        Whether it fits.
    """
    depth = 1.0
    def fits(self, draught): pass
`, `
== port
Ports.
= find
Find a berth.
Longer text.
part 1 
  a (` + "`" + `array_like` + "`" + ` of ` + "`" + `float` + "`" + `, ` + "`" + `shape` + "`" + ` (` + "`" + `n` + "`" + `,)): What it needs.
Second paragraph.
  b ({'` + "`" + `low` + "`" + `', '` + "`" + `high` + "`" + `'}): Which, by default None.
  *args, **kwargs: Passed on.
  axis (` + "`" + `int` + "`" + `): 
part 2 
  berth (` + "`" + `Berth` + "`" + `(Berth)): The one.
   (` + "`" + `int` + "`" + `): How many.
part 4 
  ValueError(): If there is none.
  KeyError, TypeError(): 
part 7 
  With math $_x_^2$ and
$$ $_y_ = _x_^1$
part 9 
  ` + "`" + `` + "`" + `` + "`" + ` python: ">>> find(1)\n2"
And then:
` + "`" + `` + "`" + `` + "`" + ` python: ">>> find(3)\n4"
part 10 
  list from 0 false
  - [` + "`" + `moor` + "`" + `](moor): Moors it.
  - [` + "`" + `Berth` + "`" + `](Berth), [` + "`" + `port.Berth.fits` + "`" + `](Berth.fits)
part 12 References
  list from 0 footnotesfalse
  - *[1]* A. Author, "Title".
= moor
Moor.
part 3 
   (` + "`" + `int` + "`" + `): Numbers.
part 5 
  UserWarning(): Sometimes.
part 8 
  Mind it.
= Berth
A place.
part 6 
  depth (` + "`" + `float` + "`" + `): How deep.
part 12 Methods
  list from 0 termsfalse
  - *fits(draught)*
    Whether it fits.
`},
		{"sections with colons", `
-- pyproject.toml --
[project]
name = "port"
-- port.py --
"""Ports.

Attributes:
    LIMIT (int): How many.

Todo:
    * more
"""
LIMIT = 3

def find(a, b, *args, **kwargs):
    """Find a berth.

    Args:
        a (list[Berth]): What it needs,
            over two lines.
        b (int, optional): Which. Defaults to 0.
        *args: More.
        **kwargs: Passed on, such as
            - one
            - two

    Keyword Args:
        wide (bool): How wide.

    Returns:
        dict[str, Berth]: By name. For example:

            {"a": Berth()}

    Yields:
        Nothing.

    Raises:
        ValueError: If there is none.
        errors.Lost: Else.

    Example:
        >>> find(1)
        2

    Note:
        Mind the tide.

    See Also:
        Berth: a place.
    """

class Berth:
    """A place."""
`, `
== port
Ports.
part 6 
  LIMIT (` + "`" + `int` + "`" + `): How many.
part 12 Todo
  list from 0 false
  - more
= find
Find a berth.
part 1 
  a (` + "`" + `list` + "`" + `[` + "`" + `Berth` + "`" + `(Berth)]): What it needs,
over two lines.
  b (` + "`" + `int` + "`" + `): Which. Defaults to 0.
  *args: More.
  **kwargs: Passed on, such as
- one
- two
  wide (` + "`" + `bool` + "`" + `): How wide.
part 2 
   (` + "`" + `dict` + "`" + `[` + "`" + `str` + "`" + `, ` + "`" + `Berth` + "`" + `(Berth)]): By name. For example:
{"a": Berth()}
part 3 
  Nothing.
part 4 
  ValueError(): If there is none.
  errors.Lost(): Else.
part 7 
  Mind the tide.
part 9 
  ` + "`" + `` + "`" + `` + "`" + ` python: ">>> find(1)\n2"
part 10 
  list from 0 false
  - [` + "`" + `Berth` + "`" + `](Berth): a place.
= Berth
A place.
`},
		{"letters with braces", `
-- pyproject.toml --
[project]
name = "port"
-- port.py --
"""Ports, C{code}, B{bold}, I{em}, L{Berth}, L{text<Berth.fits>}, U{https://x.example/}, M{x}, E{lb}.

@author: nobody
"""

class Berth:
    """
    A place.

    @ivar depth: How deep, as C{float}.
    @type depth: L{float}
    """
    depth = 1.0

    def fits(self, draught):
        """
        Whether it fits::

            b.fits(1)

        @param draught: What it needs.
        @type draught: C{int}
        @return: Whether, as L{bool}.
        @rtype: C{bool}
        @raise ValueError: Never.
        @see: L{Berth}
        @since: 1.0
        @deprecated: Use another.
        """
`, `
== port
Ports, ` + "`" + `code` + "`" + `, *bold*, _em_, [` + "`" + `Berth` + "`" + `](Berth), [` + "`" + `text` + "`" + `](Berth.fits), [https://x.example/](https://x.example/), $_x_$, E{lb}.
*author:* nobody
= Berth
A place.
part 6 
  depth ([` + "`" + `float` + "`" + `]()): How deep, as ` + "`" + `float` + "`" + `.
= Berth.fits
deprecated: Use another.
Whether it fits:
` + "`" + `` + "`" + `` + "`" + ` : "b.fits(1)"
part 1 
  draught (` + "`" + `int` + "`" + `): What it needs.
part 2 
   (` + "`" + `bool` + "`" + `): Whether, as [` + "`" + `bool` + "`" + `]().
part 4 
  ValueError(): Never.
part 10 
  [` + "`" + `Berth` + "`" + `](Berth)
part 11 
  1.0
`},
		{"Markdown", `
-- pyproject.toml --
[project]
name = "port"
-- port.py --
"""# Ports

See [the book](https://x.example/) and ` + "`" + `Berth` + "`" + `.

` + "`" + `` + "`" + `` + "`" + `python
Berth()
` + "`" + `` + "`" + `` + "`" + `

| a | b |
|---|---|
| 1 | 2 |
"""

class Berth:
    """A place.

    - **one**
    - ` + "`" + `two` + "`" + `

    ` + "`" + `` + "`" + `` + "`" + `
    fenced
    ` + "`" + `` + "`" + `` + "`" + `
    """
`, `
== port
# Ports (Ports)
See [the book](https://x.example/) and ` + "`" + `Berth` + "`" + `(Berth).
` + "`" + `` + "`" + `` + "`" + ` python: "Berth()"
|| a | b |
| 1 | 2 |
= Berth
A place.
list from 0 false
  - *one*
  - ` + "`" + `two` + "`" + `
` + "`" + `` + "`" + `` + "`" + ` : "fenced"
`},
	})
}
