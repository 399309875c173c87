namespace CalmQuill.Core.Operations;

/// <summary>The registers that <see cref="Change.PropertySet"/> writes. The numbers are part of the stored form.</summary>
public enum Property : byte
{
    /// <summary>Name of a folder or notebook, or title of a page: one line, at most 200 characters.</summary>
    Name = 1,

    /// <summary>Colour of a folder or cover: one of the names of the palette.</summary>
    Colour = 2,

    /// <summary>Pattern of a notebook's cover.</summary>
    Cover = 3,

    /// <summary>Empty, or the UTC time in milliseconds since 1970 at which it was put into the bin.</summary>
    Binned = 4,

    /// <summary>The order key of a page.</summary>
    Order = 5,

    /// <summary>The paper of a page, or with the notebook as target the paper of new pages.</summary>
    Paper = 6,
}
