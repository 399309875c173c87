using System.Net;
using System.Net.Sockets;

namespace CalmQuill.Server.Outside;

/// <summary>Which addresses lie in the public network: not this machine, nor a private, link-local or otherwise special one (RFC 6890 and the registries it founds).</summary>
internal static class PublicAddresses
{
    /// <summary>Forms of version 6 that carry an address of version 4, or lead through a tunnel to one, are not public, whatever they carry: nobody needs them for a calendar.</summary>
    private static readonly IPNetwork[] Special6 =
    [
        .. new[]
        {
            "::/96",
            "64:ff9b::/96",
            "64:ff9b:1::/48",
            "100::/64",
            "2001::/23",
            "2001:db8::/32",
            "2002::/16",
            "3fff::/20",
            "5f00::/16",
            "fc00::/7",
            "fe80::/10",
            "fec0::/10",
            "ff00::/8",
        }.Select(network => IPNetwork.Parse(network)),
    ];

    private static readonly IPNetwork[] Special4 =
    [
        .. new[]
        {
            "0.0.0.0/8",
            "10.0.0.0/8",
            "100.64.0.0/10",
            "127.0.0.0/8",
            "169.254.0.0/16",
            "172.16.0.0/12",
            "192.0.0.0/24",
            "192.0.2.0/24",
            "192.88.99.0/24",
            "192.168.0.0/16",
            "198.18.0.0/15",
            "198.51.100.0/24",
            "203.0.113.0/24",
            "224.0.0.0/4",
            "240.0.0.0/4",
        }.Select(network => IPNetwork.Parse(network)),
    ];

    public static bool IsPublic(IPAddress address) =>
        !address.IsIPv4MappedToIPv6
        && !(address.AddressFamily == AddressFamily.InterNetworkV6 ? Special6 : Special4).Any(network => network.Contains(address));
}
