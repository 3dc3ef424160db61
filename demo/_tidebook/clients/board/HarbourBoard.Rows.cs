using System;
using System.Collections.Generic;

namespace Tidebook.Board;

public partial class HarbourBoard<TRow>
{
    /// <include file="rows.xml" path="docs/member[@name='Free']/*"/>
    public IEnumerable<int> Free()
    {
        for (var berth = 0; berth < Most; berth++)
        {
            if (berth >= rows.Count || rows[berth].State == RowState.Free) yield return berth;
        }
    }

    /// <include file="rows.xml" path="docs/member[@name='Clear']/*"/>
    public void Clear(int berth) => rows[berth].State = RowState.Free;

    /// <summary>Moves a row, see <see cref="Row.Lable"/>.</summary>
    /// <param name="form">Where it was.</param>
    /// <param name="to">Where it goes.</param>
    public void Move(int from, int to) => (rows[from], rows[to]) = (rows[to], rows[from]);

#if NET9_0_OR_GREATER
    /// <summary>The rows without a copy.</summary>
    /// <returns>All of them.</returns>
    public ReadOnlySpan<TRow> Span() => System.Runtime.InteropServices.CollectionsMarshal.AsSpan(rows);
#endif
}
