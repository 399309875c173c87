using System.Globalization;

namespace CalmQuill.Core.Links;

/// <summary>Where a link leads. Inside, it names things by their ids, so that moving and renaming them never breaks it.</summary>
/// <remarks>
/// The text form: an address of the web as it is; or <c>notebook:SPACE/ID</c>, <c>section:SPACE/NOTEBOOK/ID</c>, <c>page:SPACE/NOTEBOOK/ID</c>,
/// <c>place:SPACE/NOTEBOOK/PAGE/X,Y</c> (0.01 mm), <c>mark:SPACE/NOTEBOOK/PAGE/ID</c>.
/// </remarks>
public sealed record LinkTarget
{
    public const int MostAddress = 2_000;
    private static readonly string[] Kinds = ["notebook", "section", "page", "place", "mark"];

    /// <summary>web, notebook, section, page, place or mark.</summary>
    public required string Kind { get; init; }

    /// <summary>The address, for the web.</summary>
    public string Address { get; init; } = "";

    public Guid Space { get; init; }

    public Guid Notebook { get; init; }

    /// <summary>The page; the empty id for a notebook or section.</summary>
    public Guid Page { get; init; }

    /// <summary>The section or the mark; the empty id for others.</summary>
    public Guid Part { get; init; }

    public (int X, int Y) Place { get; init; }

    /// <summary>Null where the text is no target.</summary>
    public static LinkTarget? Read(string text)
    {
        var colon = text.IndexOf(':', StringComparison.Ordinal);
        if (colon < 0)
            return null;
        var kind = text[..colon];
        if (!Kinds.Contains(kind))
            return ReadAddress(text);
        var parts = text[(colon + 1)..].Split('/');
        var wanted = kind switch
        {
            "notebook" => 2,
            "section" or "page" => 3,
            _ => 4,
        };
        if (parts.Length != wanted)
            return null;
        var ids = new Guid[4];
        for (var i = 0; i < (kind == "place" ? 3 : wanted); i++)
        {
            if (!Guid.TryParseExact(parts[i], "D", out ids[i]) || ids[i] == Guid.Empty)
                return null;
        }

        var target = new LinkTarget
        {
            Kind = kind,
            Space = ids[0],
            Notebook = ids[1],
        };
        switch (kind)
        {
            case "section":
                return target with { Part = ids[2] };
            case "page":
                return target with { Page = ids[2] };
            case "mark":
                return target with { Page = ids[2], Part = ids[3] };
            case "place":
                var comma = parts[3].Split(',');
                return comma.Length == 2 && Coordinate(comma[0]) is { } x && Coordinate(comma[1]) is { } y
                    ? target with
                    {
                        Page = ids[2],
                        Place = (x, y),
                    }
                    : null;
            default:
                return target;
        }
    }

    public override string ToString() =>
        Kind switch
        {
            "web" => Address,
            "notebook" => $"notebook:{Space}/{Notebook}",
            "section" => $"section:{Space}/{Notebook}/{Part}",
            "page" => $"page:{Space}/{Notebook}/{Page}",
            "mark" => $"mark:{Space}/{Notebook}/{Page}/{Part}",
            _ => string.Create(CultureInfo.InvariantCulture, $"place:{Space}/{Notebook}/{Page}/{Place.X},{Place.Y}"),
        };

    /// <summary>Addresses lead to the web or to a letter; nothing that a browser would run.</summary>
    private static LinkTarget? ReadAddress(string text) =>
        text.Length <= MostAddress
        && Uri.TryCreate(text, UriKind.Absolute, out var address)
        && address.Scheme is "http" or "https" or "mailto"
        && !text.Any(c => char.IsControl(c) || char.IsWhiteSpace(c))
            ? new LinkTarget { Kind = "web", Address = text }
            : null;

    private static int? Coordinate(string text) =>
        int.TryParse(text, NumberStyles.AllowLeadingSign, CultureInfo.InvariantCulture, out var value)
        && Math.Abs((long)value) <= Ink.StrokeSamples.MostCoordinate
            ? value
            : null;
}
