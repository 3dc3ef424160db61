using System;

namespace Tidebook.Board.Wire;

/// <summary>What the harbour answers for a <see cref="Vessel"/>.</summary>
public readonly struct Reply
{
    /// <summary>Of whom it speaks.</summary>
    public Vessel Of { get; init; }

    /// <summary>Whether there is a berth for tides & weather.</summary>
    public bool Yes { get; init; }

    /// <summary>Reads a reply.
    /// <param name="text">What came.</param>
    /// <returns>The reply.</returns>
    public static Reply Parse(string text) => new() { Yes = text == "yes" };

    /// <summary>Tells how long one has to wait.</summary>
    /// <retruns>The time.</retruns>
    public TimeSpan Delay(int tide) => TimeSpan.FromHours(tide);

    /// <summary>Is a yes or a no.</summary>
    /// <param name="reply">The reply.</param>
    public static implicit operator bool(Reply reply) => reply.Yes;
}

/// <summary>What vessels can do besides.</summary>
public static class VesselExtensions
{
    /// <summary>Tells whether a vessel floats.</summary>
    /// <param name="vessel">The vessel.</param>
    /// <param name="depth">Of the water, in metres.</param>
    /// <param name="depth">Of the berth, in metres.</param>
    /// <returns>Whether there is water enough.</returns>
    public static bool Floats(this Vessel vessel, double depth) => depth > vessel.Draught;
}
