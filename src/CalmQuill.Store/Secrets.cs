using System.Security.Cryptography;
using System.Text;

namespace CalmQuill.Store;

/// <summary>The secrets of links and letters: drawn at random, and kept as a hash to be found by. They are long, so the hash needs no salt.</summary>
public static class Secrets
{
    /// <summary>Draws one of so many bytes, as hexadecimal digits.</summary>
    public static string Draw(int bytes = 18) => Convert.ToHexStringLower(RandomNumberGenerator.GetBytes(bytes));

    internal static byte[] Hash(string secret) => SHA256.HashData(Encoding.UTF8.GetBytes(secret));
}
