using System;
using System.Collections;
using System.Collections.Generic;
using Tidebook.Board.Wire;

namespace Tidebook.Board;

/// <summary>
/// Shows on a desk who lies at which berth; see <see cref="Show(Vessel, int)"/>.
/// </summary>
/// <typeparam name="TRow">What a row shows.</typeparam>
/// <remarks>
/// A row may be:
/// <list type="table">
/// <listheader><term>State</term><description>What it means</description></listheader>
/// <item><term><see cref="RowState.Free"/></term><description>Nobody lies there.</description></item>
/// <item><term><see cref="RowState.Taken"/></term><description>Somebody does, or <c>null</c>.</description></item>
/// </list>
/// <see href="insert:heights"/>
/// </remarks>
/// <example>
/// <code>
/// var board = new HarbourBoard&lt;Row>("North");
/// board.Show(new Vessel("Grey Heron", 1.9));
/// </code>
/// </example>
public partial class HarbourBoard<TRow> : IBoard, IEnumerable<TRow>
    where TRow : Row, new()
{
    private readonly List<TRow> rows = new();

    /// <summary>The most rows that fit.</summary>
    public const int Most = 24;

    /// <summary>Makes a board.</summary>
    /// <param name="harbour">The harbour's short name.</param>
    public HarbourBoard(string harbour) => Harbour = harbour;

    /// <summary>The harbour's short name.</summary>
    /// <value>Never empty.</value>
    public string Harbour { get; private set; }

    /// <inheritdoc/>
    public int Count => rows.Count;

    /// <summary>The row of a berth.</summary>
    /// <param name="berth">The berth's number, from 0.</param>
    public TRow this[int berth] => rows[berth];

    /// <summary>Raised where a row changes.</summary>
    public event EventHandler<RowChanged>? Changed;

    /// <summary>Shows a vessel at the next berth.</summary>
    /// <param name="vessel">Who comes.</param>
    /// <exception cref="BoardFull">No row is left.</exception>
    public void Show(Vessel vessel) => Show(vessel, rows.Count);

    /// <summary>Shows a vessel at a berth.</summary>
    /// <param name="vessel">Who comes.</param>
    /// <param name="berth">The berth's number, less than <see cref="Most"/>.</param>
    /// <exception cref="BoardFull">No row is left.</exception>
    public virtual void Show(Vessel vessel, int berth)
    {
        if (berth >= Most) throw new BoardFull(Harbour);
        var row = new TRow { Vessel = vessel, State = RowState.Taken };
        rows.Insert(berth, row);
        Changed?.Invoke(this, new RowChanged(berth));
    }

    /// <inheritdoc/>
    public IEnumerator<TRow> GetEnumerator() => rows.GetEnumerator();

    IEnumerator IEnumerable.GetEnumerator() => GetEnumerator();
}
