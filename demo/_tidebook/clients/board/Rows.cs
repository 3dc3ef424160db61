namespace Tidebook.Board
{
    using System;

    /// <summary>What shows something at berths.</summary>
    public interface IBoard
    {
        /// <summary>How many rows there are.</summary>
        int Count { get; }

        /// <summary>Frees a berth.</summary>
        /// <param name="berth">The berth's number.</param>
        void Clear(int berth);
    }

    /// <summary>A row of a board.</summary>
    public class Row
    {
        /// <summary>Who lies there, or <see langword="null"/>.</summary>
        public Vessel? Vessel { get; set; }

        /// <summary>Whether the berth is free.</summary>
        public RowState State { get; set; }

        public string Label => Vessel?.Name ?? "free";

        /// <summary>Compares the labels of two rows.</summary>
        /// <param name="a">One row.</param>
        /// <param name="b">The other.</param>
        /// <returns>Whether they read alike.</returns>
        public static bool operator ==(Row a, Row b) => a.Label == b.Label;

        /// <summary>Compares the labels of two rows.</summary>
        /// <param name="a">One row.</param>
        /// <param name="b">The other.</param>
        /// <returns>Whether they read differently.</returns>
        public static bool operator !=(Row a, Row b) => !(a == b);

        /// <inheritdoc/>
        public override string ToString() => Label;
    }

    /// <summary>What a row may be.</summary>
    [Flags]
    public enum RowState
    {
        /// <summary>Nobody lies there.</summary>
        Free = 0,

        /// <summary>Somebody lies there.</summary>
        Taken = 1,

        /// <summary>It falls dry at low water.</summary>
        Dry = 2,

        /// <summary>It was let to somebody.</summary>
        [Obsolete]
        Let = 4,
    }

    /// <summary>A vessel on a board.</summary>
    /// <param name="Name">What it is called.</param>
    /// <param name="Draught">How deep it lies, in metres.</param>
    public record Vessel(string Name, double Draught);

    /// <summary>Says which row changed.</summary>
    /// <param name="berth">The berth's number.</param>
    public sealed class RowChanged(int berth) : EventArgs
    {
        /// <summary>The berth's number.</summary>
        public int Berth => berth;
    }

    /// <summary>Thrown where no row is left.</summary>
    public class BoardFull : Exception
    {
        /// <summary>Makes one.</summary>
        /// <param name="harbour">Whose board is full.</param>
        public BoardFull(string harbour) : base(harbour) { }
    }

    /// <summary>Chooses rows.</summary>
    /// <param name="row">The row.</param>
    /// <returns>Whether it is chosen.</returns>
    public delegate bool RowFilter(Row row);
}
