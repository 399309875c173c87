namespace CalmQuill.Store.Assets;

/// <summary>A bucket of a store that speaks S3.</summary>
/// <param name="Address">Where the store answers.</param>
/// <param name="Name">The bucket's name; it must be there.</param>
/// <param name="Key">Who asks.</param>
/// <param name="Secret">What proves it.</param>
public sealed record Bucket(Uri Address, string Name, string Key, string Secret)
{
    /// <summary>Without the secret.</summary>
    public override string ToString() => $"{Name} at {Address}";
}
