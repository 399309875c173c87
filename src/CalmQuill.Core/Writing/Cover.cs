namespace CalmQuill.Core.Writing;

/// <summary>
/// The formats that reach over letters, the latest last; those that were taken back are among them. Never changed, so letters side by side share one.
/// </summary>
internal sealed class Cover
{
    public static readonly Cover None = new([]);

    private readonly StandingFormat[] formats;
    private Look? look;
    private int lookedAt = -1;

    private Cover(StandingFormat[] formats) => this.formats = formats;

    public IReadOnlyList<StandingFormat> Formats => formats;

    /// <summary>The same with one more.</summary>
    public Cover With(StandingFormat format)
    {
        var place = formats.Length;
        while (place > 0 && formats[place - 1].CompareTo(format) > 0)
            place--;
        return new([.. formats[..place], format, .. formats[place..]]);
    }

    /// <summary>The same without one.</summary>
    public Cover Without(StandingFormat format) => Of(formats.Where(other => other != format));

    /// <param name="formats">The formats, the latest last.</param>
    public static Cover Of(IEnumerable<StandingFormat> formats) => formats.ToArray() is { Length: > 0 } some ? new(some) : None;

    public bool Holds(StandingFormat format) => Array.IndexOf(formats, format) >= 0;

    /// <summary>What they come to.</summary>
    /// <param name="version">Another number whenever a format was taken back or came again.</param>
    public Look Look(int version)
    {
        if (look is null || lookedAt != version)
            (look, lookedAt) = (Writing.Look.Of(formats), version);
        return look;
    }
}
