namespace CalmQuill.Core.Operations;

/// <summary>One change to one document, as it travels and is kept.</summary>
/// <param name="Id">Unique for ever; sending the same id twice is harmless.</param>
/// <param name="Time">When it was made, by the hybrid logical clock.</param>
/// <param name="Author">The person who made it.</param>
/// <param name="Change">What it does.</param>
public sealed record Operation(OpId Id, Hlc Time, Guid Author, Change Change)
{
    public Stamp Stamp => new(Time, Id);
}
