using CalmQuill.Core.Items;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Writing;

namespace CalmQuill.Core.Seen;

/// <summary>Something that is seen among typed words, and where it stands.</summary>
/// <param name="Item">The thing in which it is typed.</param>
/// <param name="Room">Where in it.</param>
/// <param name="Paragraph">The paragraph.</param>
/// <param name="Part">Its letters, counted from the beginning of the text.</param>
public readonly record struct SeenThing(OpId Item, LetterRoom Room, Paragraph Paragraph, SeenPart Part)
{
    /// <summary>Its words.</summary>
    public string Words => Line[(Part.From - Paragraph.Start)..(Part.To - Paragraph.Start)];

    /// <summary>The line in which they stand.</summary>
    public string Line => Paragraph.Text;

    /// <summary>The corners of what lies behind its letters, line by line.</summary>
    public IEnumerable<(double X, double Y)[]> Corners => Room.Behind(Part.From, Part.To);
}
