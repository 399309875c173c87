namespace CalmQuill.Core.Writing;

/// <summary>In which respects typed text can be made to look otherwise. The numbers are part of the stored form and are never used again.</summary>
public enum Trait : byte
{
    /// <summary>“1” for bold.</summary>
    Bold = 1,

    /// <summary>“1” for italic.</summary>
    Italic = 2,

    /// <summary>“1” for underlined.</summary>
    Underline = 3,

    /// <summary>“1” for struck out.</summary>
    Struck = 4,

    /// <summary><c>raised</c> or <c>lowered</c>.</summary>
    Shift = 5,

    /// <summary>Height of the type, 0.1 pt.</summary>
    Size = 6,

    /// <summary>One of the shipped families, by its short name.</summary>
    Family = 7,

    /// <summary>sRGB with alpha: <c>rrggbbaa</c>.</summary>
    Colour = 8,

    /// <summary>Colour of a marker behind the letters: <c>rrggbbaa</c>.</summary>
    Marker = 9,

    /// <summary>Where the letters lead: an address of the web, or a target within Calm Quill.</summary>
    Link = 10,

    /// <summary>
    /// From here on of paragraphs: <c>title</c>, <c>heading</c>, <c>subheading</c>, <c>small</c>, <c>quotation</c>, <c>code</c>; empty for body.
    /// </summary>
    Style = 32,

    /// <summary><c>centre</c>, <c>right</c> or <c>justified</c>; empty for where the writing begins.</summary>
    Align = 33,

    /// <summary>How many steps it is set in, 0 to 8.</summary>
    Indent = 34,

    /// <summary><c>bullet</c>, <c>number</c> or <c>tick</c>.</summary>
    List = 35,

    /// <summary>“1” for a tick box that is ticked.</summary>
    Ticked = 36,

    /// <summary>Space above it, 0.1 pt.</summary>
    Above = 37,

    /// <summary>Space between its lines, in hundredths of the usual.</summary>
    Leading = 38,

    /// <summary><c>ltr</c> or <c>rtl</c>; empty for as its first letter has it.</summary>
    Direction = 39,

    /// <summary>
    /// From here on of tables, see <see cref="Tables.TableText"/>: what of a table a paragraph is. <c>r:id</c> stands for a row, <c>c:id</c> for a column, the ids of both
    /// for what is written in a cell.
    /// </summary>
    Cell = 40,

    /// <summary>Where a row or column lies among the others: an <see cref="Ordering.OrderKey"/>.</summary>
    Place = 41,

    /// <summary>How wide a column is, or how high a row at least, 0.01 mm.</summary>
    Extent = 42,

    /// <summary>“1” for a row or column that was removed.</summary>
    Gone = 43,

    /// <summary>What a cell is filled with: <c>rrggbbaa</c>; empty for nothing.</summary>
    Fill = 44,

    /// <summary>The cell in which one ends that was joined with others: the ids of its row and its column.</summary>
    Span = 45,

    /// <summary>What stands under a column: <c>sum</c>, <c>mean</c> or <c>count</c>.</summary>
    Total = 46,
}
