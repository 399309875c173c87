namespace CalmQuill.Core.Access;

/// <summary>What a person may do in a space. The numbers are part of the stored form.</summary>
public enum Role : byte
{
    None = 0,
    Reader = 1,
    Writer = 2,
    Owner = 3,
}
