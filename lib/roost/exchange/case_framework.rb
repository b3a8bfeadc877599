# frozen_string_literal: true

require "json"

module Roost
  module Exchange
    # A list of learning standards as a CASE package (1EdTech, Competencies and Academic Standards Exchange 1.0), in JSON: its
    # items are standards, and what is a child of another stands under it.
    module CaseFramework
      LIMIT = 4 * 1024 * 1024 # bytes
      NO_JSON = "is no JSON that could be read."
      NO_CASE = "is no CASE package: it has no CFItems."
      TOO_LARGE = "is larger than 4 MB. Export a part of it."

      # @param path [String]
      # @return [Core::Reading] of StandardsSheet::Found; refused in words that go on after the file's name
      def self.read(path)
        return Core::Reading.refused(TOO_LARGE) if File.size(path) > LIMIT

        package = JSON.parse(File.read(path, encoding: Encoding::UTF_8), max_nesting: 20)
        items = package["CFItems"] if package.is_a?(Hash)
        return Core::Reading.refused(NO_CASE) unless items.is_a?(Array)
        return Core::Reading.refused(StandardsSheet::TOO_MANY) if items.length > StandardsSheet::MOST

        Core::Reading.ok(found(items.grep(Hash), parents(package)))
      rescue JSON::ParserError, EncodingError
        Core::Reading.refused(NO_JSON)
      end

      def self.found(items, parents)
        codes = items.to_h { |item| [item["identifier"].to_s, code(item)] }
        rows = items.each_with_index.map do |item, place|
          level = Array(item["educationLevel"]).grep(String).join(", ")
          above = codes[parents[item["identifier"].to_s]].to_s
          subject = Array(item["subject"]).grep(String).join(", ")
          [place + 1, { code: code(item), words: item["fullStatement"].to_s, subject: subject, level: level, parent: above }]
        end
        StandardsSheet.sorted(rows)
      end

      # @return [Hash{String=>String}] identifier of an item to that of the one above it
      def self.parents(package)
        all = package["CFAssociations"]
        children = Array(all).grep(Hash).select { |each| each["associationType"] == "isChildOf" }
        children.to_h { |each| %w[originNodeURI destinationNodeURI].map { |node| identifier(each[node]) } }
      end

      def self.identifier(node) = node.is_a?(Hash) ? node["identifier"].to_s : ""

      def self.code(item) = [item["humanCodingScheme"], item["abbreviatedStatement"]].map(&:to_s).find { |text| text != "" }.to_s
      private_class_method :found, :parents, :identifier, :code
    end
  end
end
