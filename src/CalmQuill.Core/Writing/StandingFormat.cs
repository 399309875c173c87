using CalmQuill.Core.Operations;

namespace CalmQuill.Core.Writing;

/// <summary>A format and the operation that made it.</summary>
/// <param name="format">The format.</param>
/// <param name="batch">The operation.</param>
/// <param name="place">Its place among the operation's formats: of two the later counts.</param>
internal sealed class StandingFormat(Format format, Batch batch, int place) : IComparable<StandingFormat>
{
    public Edge From => format.From;

    public Edge To => format.To;

    public Trait Trait => format.Trait;

    public string Value => format.Value;

    public bool Active => batch.Active;

    private Stamp Stamp => batch.Stamp;

    /// <summary>Its place among the operation's formats.</summary>
    public int Place => place;

    public OpId Operation => batch.Id;

    public int CompareTo(StandingFormat? other)
    {
        var byStamp = Stamp.CompareTo(other!.Stamp);
        return byStamp != 0 ? byStamp : Place.CompareTo(other.Place);
    }
}
