<?php

declare(strict_types=1);

namespace VineShelf\Formats;

/**
 * XML that is looked through before it is held: elements, depth and text are counted while it streams by, over all parts that one reader
 * reads, and document types are refused, in whatever encoding. Entities are how small files become large ones, and how files name others.
 */
final class BoundedXml
{
    private const DEPTH = 60;

    private int $elements = 0;

    private int $bytes = 0;

    /**
     * @param int $mostEach elements of one part
     * @param int $mostInAll of all
     * @param int $bytesInAll of all parts
     */
    public function __construct(
        private readonly int $mostEach = 400_000,
        private readonly int $mostInAll = 1_500_000,
        private readonly int $bytesInAll = 128_000_000,
    ) {}

    /**
     * @param string $bytes of one part
     *
     * @throws UnreadableFile with what is wrong, the end of a sentence
     */
    public function root(string $bytes): \DOMElement
    {
        $this->bytes += strlen($bytes);
        if ($this->bytes > $this->bytesInAll) {
            throw UnreadableFile::because('it and the parts before it have more than '.intdiv($this->bytesInAll, 1_000_000).' MB');
        }
        $before = libxml_use_internal_errors(true);
        try {
            $this->lookThrough($bytes);
            $document = new \DOMDocument;
            $isRead = $bytes !== '' && $document->loadXML($bytes, LIBXML_NONET | LIBXML_COMPACT);

            return ($isRead ? $document->documentElement : null) ?? throw self::broken();
        } finally {
            libxml_clear_errors();
            libxml_use_internal_errors($before);
        }
    }

    /** @throws UnreadableFile */
    private function lookThrough(string $bytes): void
    {
        $reader = $bytes === '' ? null : \XMLReader::XML($bytes, null, LIBXML_NONET);
        if (! $reader instanceof \XMLReader) {
            throw self::broken();
        }
        $elements = 0;
        while (@$reader->read()) {
            if ($reader->nodeType === \XMLReader::DOC_TYPE) {
                throw UnreadableFile::because('it has a document type');
            }
            if ($reader->nodeType === \XMLReader::ELEMENT) {
                if ($reader->depth > self::DEPTH) {
                    throw UnreadableFile::because('its elements lie more than '.self::DEPTH.' deep');
                }
                if (++$elements > $this->mostEach || ++$this->elements > $this->mostInAll) {
                    $most = $elements > $this->mostEach ? $this->mostEach : $this->mostInAll;
                    throw UnreadableFile::because(
                        ($elements > $this->mostEach ? 'it has' : 'it and the parts before it have').' more than '.
                            number_format($most).' elements',
                    );
                }
            }
        }
        if (libxml_get_last_error() !== false) {
            throw self::broken();
        }
    }

    private static function broken(): UnreadableFile
    {
        $error = libxml_get_last_error();

        return UnreadableFile::because('its XML is broken'.($error === false ? '' : ', at line '.$error->line));
    }
}
