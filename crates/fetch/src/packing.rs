//! Bodies that came packed (RFC 9110, section 8.4).

use std::io::{self, BufRead, BufReader, Read};

use flate2::bufread::{DeflateDecoder, MultiGzDecoder, ZlibDecoder};
use thiserror::Error;

/// What can be unpacked, as a request says it.
pub const PACKINGS: &str = "gzip, br, deflate";

/// How much is unpacked at a time.
const BLOCK: usize = 1 << 14;

/// A packing that nobody here undoes.
#[derive(Debug, Clone, PartialEq, Eq, Error)]
#[error("the answer is packed as `{0}`")]
pub struct UnknownPacking(pub String);

/// A body as it was before it was packed; `packing` is what its `Content-Encoding` says.
///
/// Reading it fails with [`io::ErrorKind::InvalidData`] or [`io::ErrorKind::InvalidInput`] where it was not packed so.
///
/// # Errors
/// A packing that is not known.
pub fn unpacked<'r>(packing: &str, reader: impl Read + 'r) -> Result<Box<dyn Read + 'r>, UnknownPacking> {
    let mut reader: Box<dyn Read + 'r> = Box::new(reader);
    // The last one was put on last.
    for one in packing.rsplit(',').map(str::trim).filter(|one| !one.is_empty()) {
        let input = BufReader::new(reader);
        reader = match one.to_ascii_lowercase().as_str() {
            "identity" => Box::new(input),
            "gzip" | "x-gzip" => Box::new(MultiGzDecoder::new(input)),
            "br" => Box::new(brotli_decompressor::Decompressor::new(input, BLOCK)),
            "deflate" => Box::new(Deflated::Unread(input)),
            _ => return Err(UnknownPacking(one.to_owned())),
        };
    }
    Ok(reader)
}

/// What is called deflate is zlib (RFC 1950); some servers send what is inside of it alone (RFC 1951).
enum Deflated<R> {
    Unread(R),
    Zlib(ZlibDecoder<R>),
    Bare(DeflateDecoder<R>),
    Gone,
}

impl<R: BufRead> Read for Deflated<R> {
    fn read(&mut self, buffer: &mut [u8]) -> io::Result<usize> {
        loop {
            match self {
                Self::Zlib(decoder) => return decoder.read(buffer),
                Self::Bare(decoder) => return decoder.read(buffer),
                Self::Gone => return Ok(0),
                Self::Unread(reader) => {
                    // RFC 1950, section 2.2: the method is 8, and the first two bytes are a multiple of 31.
                    let start = reader.fill_buf()?;
                    let is_zlib = match start {
                        [first, second, ..] => {
                            first & 0x0F == 8
                                && (u16::from(*first) * 256 + u16::from(*second)).is_multiple_of(31)
                        }
                        _ => true,
                    };
                    let Self::Unread(reader) = std::mem::replace(self, Self::Gone) else { continue };
                    *self = match is_zlib {
                        true => Self::Zlib(ZlibDecoder::new(reader)),
                        false => Self::Bare(DeflateDecoder::new(reader)),
                    };
                }
            }
        }
    }
}

#[cfg(test)]
mod tests {
    use std::io::Write;

    use flate2::Compression;
    use flate2::write::{DeflateEncoder, GzEncoder, ZlibEncoder};

    use super::*;

    const TEXT: &str = "{\"id\": 17}";

    /// The text as brotli has it.
    const BROTLI: &[u8] =
        &[0x8b, 0x04, 0x80, b'{', b'"', b'i', b'd', b'"', b':', b' ', b'1', b'7', b'}', 0x03];

    fn text(packing: &str, bytes: &[u8]) -> io::Result<String> {
        let mut text = String::new();
        unpacked(packing, bytes).expect(packing).read_to_string(&mut text)?;
        Ok(text)
    }

    #[test]
    fn every_packing_is_undone() {
        let mut gzip = GzEncoder::new(Vec::new(), Compression::fast());
        let mut zlib = ZlibEncoder::new(Vec::new(), Compression::fast());
        let mut bare = DeflateEncoder::new(Vec::new(), Compression::fast());
        for encoder in [&mut gzip as &mut dyn Write, &mut zlib, &mut bare] {
            encoder.write_all(TEXT.as_bytes()).expect("it is written to memory");
        }
        let gzip = gzip.finish().expect("it is written to memory");
        let cases = [
            ("", TEXT.as_bytes().to_vec()),
            ("identity", TEXT.as_bytes().to_vec()),
            ("GZIP", gzip.clone()),
            ("deflate", zlib.finish().expect("it is written to memory")),
            ("deflate", bare.finish().expect("it is written to memory")),
            ("br", BROTLI.to_vec()),
        ];
        for (packing, bytes) in cases {
            assert_eq!(text(packing, &bytes).expect(packing), TEXT, "{packing}");
        }
        let mut twice = ZlibEncoder::new(Vec::new(), Compression::fast());
        twice.write_all(&gzip).expect("it is written to memory");
        let twice = twice.finish().expect("it is written to memory");
        assert_eq!(text("gzip, deflate", &twice).expect("both"), TEXT);
    }

    #[test]
    fn what_is_not_packed_so_is_an_error() {
        for packing in ["gzip", "br", "deflate"] {
            assert!(text(packing, TEXT.as_bytes()).is_err(), "{packing}");
        }
        let unknown = unpacked("zstd", TEXT.as_bytes()).err();
        assert_eq!(unknown, Some(UnknownPacking("zstd".to_owned())));
    }
}
