using System.Security.Cryptography;
using System.Text;

namespace CalmQuill.Store;

/// <summary>The secrets of links and letters: drawn at random, and kept as a hash to be found by. They are long, so the hash needs no salt.</summary>
public static class Secrets
{
    /// <summary>Draws one of so many bytes, as hexadecimal digits.</summary>
    public static string Draw(int bytes = 18) => Convert.ToHexStringLower(RandomNumberGenerator.GetBytes(bytes));

    /// <summary>
    /// Draws a short one that people type: capitals and digits of which none looks like another. For what is over the same day, and where guessing is slowed down.
    /// </summary>
    public static string DrawTyped(int length) => RandomNumberGenerator.GetString("23456789ABCDEFGHJKMNPQRSTUVWXYZ", length);

    internal static byte[] Hash(string secret) => SHA256.HashData(Encoding.UTF8.GetBytes(secret));
}
