namespace CalmQuill.Core.Library;

/// <summary>What stands in the tree of a library (folders, notebooks, tags, lenses) or of a notebook (sections, pages). The numbers are part of the stored form.</summary>
public enum NodeKind : byte
{
    Folder = 1,
    Notebook = 2,
    Section = 3,
    Page = 4,
    Tag = 5,
    Lens = 6,

    /// <summary>A paper of one's own.</summary>
    Paper = 7,

    /// <summary>A kind of mark of one's own.</summary>
    MarkKind = 8,

    /// <summary>A stamp: a piece of a page that is laid down again and again; its <see cref="Operations.Property.Source"/> is the file.</summary>
    Stamp = 9,
}
