namespace CalmQuill.Demo.Scenario;

/// <summary>Ids drawn from the story's own chance, so that they are the same for the same seed.</summary>
internal static class RandomIds
{
    public static Guid NextId(this Random random)
    {
        var bytes = new byte[16];
        random.NextBytes(bytes);
        // Version 8 (RFC 9562 §5.8): made by the application's own rule.
        bytes[6] = (byte)((bytes[6] & 0x0F) | 0x80);
        bytes[8] = (byte)((bytes[8] & 0x3F) | 0x80);
        return new Guid(bytes, bigEndian: true);
    }
}
