namespace CalmQuill.Core.Items;

/// <summary>Kinds of what lies on a page, to choose by.</summary>
[Flags]
public enum ItemKinds : ushort
{
    Ink = 1,
    Highlighter = 2,
    Shape = 4,

    /// <summary>A filled region.</summary>
    Area = 8,

    /// <summary>Typed text.</summary>
    Text = 16,
    Picture = 32,
    Slip = 64,
    Plot = 128,
    Table = 256,
    File = 512,
    Formula = 1024,
    All = Ink | Highlighter | Shape | Area | Text | Picture | Slip | Plot | Table | File | Formula,
}
