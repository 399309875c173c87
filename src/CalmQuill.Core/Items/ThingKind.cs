namespace CalmQuill.Core.Items;

/// <summary>What lies in a box of its own on a page. The numbers are part of the stored form and are never used again.</summary>
public enum ThingKind : byte
{
    Picture = 1,

    /// <summary>A coloured paper slip.</summary>
    Slip = 2,

    /// <summary>Curves and points over two scales.</summary>
    Plot = 3,

    /// <summary>Rows and columns of cells with letters in them.</summary>
    Table = 4,

    /// <summary>A file that is kept with the page, as a card with its name.</summary>
    File = 5,

    /// <summary>A formula that is set in type, and worked out.</summary>
    Formula = 6,
}
