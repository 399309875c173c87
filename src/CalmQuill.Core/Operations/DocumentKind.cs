namespace CalmQuill.Core.Operations;

/// <summary>The kinds of document that operations change. The numbers are part of the stored form.</summary>
public enum DocumentKind : byte
{
    Library = 1,
    Notebook = 2,
    Page = 3,

    /// <summary>A person's own sheet over a page, which nobody else ever gets: in the person's space, under the page's id.</summary>
    Aside = 4,
}
