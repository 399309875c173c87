using System.Text;
using CalmQuill.Core.Operations;

namespace CalmQuill.Core.Writing;

/// <summary>Letters and how they look, without their names: what is copied, and laid down as new letters.</summary>
/// <param name="Text">The letters.</param>
/// <param name="Formats">What looks other than usual.</param>
public sealed record Passage(string Text, IReadOnlyList<PassageFormat> Formats)
{
    /// <summary>What paragraphs show.</summary>
    public static Passage Of(IEnumerable<Paragraph> paragraphs)
    {
        var text = new StringBuilder();
        var formats = new List<PassageFormat>();
        var standing = new Dictionary<Trait, int>();
        foreach (var paragraph in paragraphs)
        {
            if (paragraph.Start > 0)
                text.Append(TypedText.Break);
            var start = text.Length;
            foreach (var span in paragraph.Spans)
            {
                foreach (var (trait, value) in span.Look.Values.Where(value => !value.Key.IsOfParagraphs()))
                    Add(trait, value, text.Length, text.Length + span.Text.Length);
                text.Append(span.Text);
            }

            foreach (var (trait, value) in paragraph.Look.Values.Where(value => value.Key.IsOfParagraphs()))
                Add(trait, value, start, text.Length + 1);
        }

        return new Passage(Signs.Whole(text.ToString()), formats);

        void Add(Trait trait, string value, int from, int to)
        {
            if (standing.TryGetValue(trait, out var last) && formats[last] is var before && before.End == from && before.Value == value)
                formats[last] = before with { End = to };
            else
            {
                standing[trait] = formats.Count;
                formats.Add(new PassageFormat(from, to, trait, value));
            }
        }
    }

    /// <summary>What makes it all of a text that is empty.</summary>
    /// <param name="own">The operation that does.</param>
    public TextChange Whole(OpId own) =>
        new(
            Text.Length > 0 ? [new Insertion(LetterId.Start, false, Text)] : [],
            [],
            [
                .. Formats.Select(format =>
                    format.Trait.IsOfParagraphs()
                        ? new Format(
                            new Edge(format.Start == 0 ? LetterId.Start : new LetterId(own, format.Start - 1), true),
                            new Edge(format.End > Text.Length ? LetterId.End : new LetterId(own, format.End - 1), true),
                            format.Trait,
                            format.Value
                        )
                        : new Format(new Edge(new LetterId(own, format.Start), false), Behind(own, format), format.Trait, format.Value)
                ),
            ]
        );

    /// <summary>What makes a text be just this.</summary>
    /// <param name="text">The text.</param>
    /// <param name="own">The operation that does.</param>
    public TextChange InPlaceOf(TypedText text, OpId own)
    {
        // What reaches over all that was there would reach over this, too.
        var before = text.Spans().SelectMany(span => span.Look.Values).Concat(text.EndLook.Values).Select(value => value.Key).Distinct();
        var whole = Whole(own);
        return whole with
        {
            Insertions = Text.Length > 0 ? [text.InsertionAt(0, Text)] : [],
            Removals = text.RemovalsOf(0, text.Length),
            Formats =
            [
                .. before.Select(trait => new Format(new Edge(LetterId.Start, true), new Edge(LetterId.End, true), trait, "")),
                .. whole.Formats,
            ],
        };
    }

    /// <summary>
    /// What types it into a text before a position. Paragraphs that end in it keep how they look; what follows the last line break becomes part of the
    /// paragraph that is there.
    /// </summary>
    /// <param name="text">The text.</param>
    /// <param name="position">The position.</param>
    /// <param name="own">The operation that does.</param>
    public TextChange Into(TypedText text, int position, OpId own)
    {
        if (Text.Length == 0)
            return new TextChange([], [], []);
        return new TextChange([text.InsertionAt(position, Text)], [], FormatsAt(own, 0));
    }

    /// <summary>How its letters look where they are typed into a text.</summary>
    /// <param name="own">The operation that types them.</param>
    /// <param name="first">How many letters that typed before them.</param>
    internal List<Format> FormatsAt(OpId own, int first)
    {
        var lastBreak = Text.LastIndexOf(TypedText.Break);
        var formats = new List<Format>();
        foreach (var format in Formats)
        {
            var end = format.Trait.IsOfParagraphs() ? Math.Min(format.End, lastBreak + 1) : format.End;
            if (format.Start < end)
                formats.Add(
                    new Format(
                        new Edge(new LetterId(own, first + format.Start), false),
                        new Edge(new LetterId(own, first + end - 1), true),
                        format.Trait,
                        format.Value
                    )
                );
        }

        return formats;
    }

    /// <summary>Where a look ends that goes on in what is typed behind it.</summary>
    private Edge Behind(OpId own, PassageFormat format) =>
        format.Trait is Trait.Link ? new Edge(new LetterId(own, format.End - 1), true)
        : format.End < Text.Length ? new Edge(new LetterId(own, format.End), false)
        : new Edge(LetterId.End, false);
}
