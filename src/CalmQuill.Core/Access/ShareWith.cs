namespace CalmQuill.Core.Access;

/// <summary>Whom something is shared with. The numbers are part of the stored form.</summary>
public enum ShareWith : byte
{
    /// <summary>One person who has an account here.</summary>
    Person = 1,

    /// <summary>Everybody who is in a group.</summary>
    Group = 2,

    /// <summary>Whoever has an account and opens a link.</summary>
    Link = 3,

    /// <summary>Whoever opens an address, without an account. It shows pages and nothing else.</summary>
    Everybody = 4,
}
