namespace CalmQuill.Core.Diagrams;

/// <summary>How a connector runs from one thing to the other. The numbers are part of the stored form.</summary>
public enum ConnectorRoute : byte
{
    Straight = 0,

    /// <summary>Level and upright, with right angles.</summary>
    Bent = 1,

    Curved = 2,
}

/// <summary>What stands at an end of a connector. The numbers are part of the stored form.</summary>
public enum ConnectorEnd : byte
{
    None = 0,
    Arrow = 1,
    Dot = 2,
}

/// <summary>How a connector looks, beside its pen.</summary>
/// <param name="Route">How it runs.</param>
/// <param name="Start">What stands where it begins.</param>
/// <param name="End">What stands where it ends.</param>
public readonly record struct ConnectorLook(ConnectorRoute Route, ConnectorEnd Start, ConnectorEnd End)
{
    /// <summary>The bits of each in a shape's detail: start, end, route.</summary>
    private const int Bits = 2,
        Mask = 3;

    /// <summary>Whether it is one of those that are known here.</summary>
    public bool IsKnown => Enum.IsDefined(Route) && Enum.IsDefined(Start) && Enum.IsDefined(End);

    /// <summary>The same as a shape's <see cref="Shapes.Shape.Detail"/>.</summary>
    public int Detail => (int)Start | ((int)End << Bits) | ((int)Route << (2 * Bits));

    /// <summary>Reads a shape's detail.</summary>
    public static ConnectorLook Of(int detail) =>
        new((ConnectorRoute)(detail >> (2 * Bits)), (ConnectorEnd)(detail & Mask), (ConnectorEnd)((detail >> Bits) & Mask));
}
