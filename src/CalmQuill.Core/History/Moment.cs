using System.Globalization;
using CalmQuill.Core.Library;
using CalmQuill.Core.Operations;

namespace CalmQuill.Core.History;

/// <summary>A moment of a notebook that somebody gave a name.</summary>
/// <param name="At">When, UTC milliseconds since 1970.</param>
/// <param name="Name">What it is called: “before the exam”.</param>
public sealed record Moment(long At, string Name)
{
    /// <summary>As a register holds it: the time, a space, and the name.</summary>
    public static readonly TextRule Rule = new(
        Names.MostBytes + 16,
        text =>
            Read(text) is not { } moment ? Sentence.Of($"A named moment is not well formed.")
            : Names.Problem(moment.Name) is { } problem ? problem
            : null
    );

    /// <summary>Null where the text is no moment.</summary>
    public static Moment? Read(string text)
    {
        var space = text.IndexOf(' ');
        return space > 0 && long.TryParse(text[..space], NumberStyles.None, CultureInfo.InvariantCulture, out var at)
            ? new Moment(at, text[(space + 1)..])
            : null;
    }

    public string Write() => string.Create(CultureInfo.InvariantCulture, $"{At} {Name}");
}
