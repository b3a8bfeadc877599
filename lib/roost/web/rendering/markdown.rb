# frozen_string_literal: true

require "commonmarker"
require "rack/utils"
require "sanitize"

module Roost
  module Web
    # A teacher's text: Markdown to HTML, cleaned. Headings start below the slide's own.
    # Formulas stand between dollar signs, $ … $ in a line and $$ … $$ in a line of their
    # own, and become <tex-formula>, which the device sets (assets/js/shared/elements/tex-formula.js).
    # A price is no formula: nothing may stand between the sign and the formula, and no
    # digit after it.
    module Markdown
      CLEAN = Sanitize::Config.freeze_config(
        elements: %w[p br strong em del code pre blockquote ul ol li h3 h4 h5 a table thead tbody tr th td sup sub],
        attributes: { "a" => %w[href], "th" => %w[align], "td" => %w[align], "ol" => %w[start] },
        protocols: { "a" => { "href" => %w[http https mailto] } },
        add_attributes: { "a" => { "rel" => "noopener noreferrer", "target" => "_blank" } },
        transformers: lambda do |step|
          node = step[:node]
          node.name = { "h1" => "h3", "h2" => "h4" }.fetch(node.name, node.name) if node.element?
        end
      )
      CODE = /(?<fence>`+)(?:.|\n)*?\k<fence>/
      FORMULA = Core::Formula::PATTERN
      # Characters of a private area stand for a formula while Markdown is at work.
      MARK = /\uE000(\d+)\uE001/

      # Rows of a text times the columns of its widest table; beyond, tables are shown as they were written.
      MOST_CELLS = 2_000

      # A slide is shown again and again.
      MADE = Core::LruCache.new(500)
      # Bytes; longer texts are rare, and made each time.
      LONGEST_KEPT = 20_000

      module_function

      # @return [String] safe HTML
      def html(text) = text.bytesize > LONGEST_KEPT ? make(text) : MADE.fetch(text) { make(text).freeze }

      def make(text)
        formulas = []
        marked = text.gsub(/\uE000|\uE001/, "").gsub(Regexp.union(CODE, FORMULA)) do |found|
          next found if found.start_with?("`")

          formulas << Regexp.last_match
          "\uE000#{formulas.length - 1}\uE001"
        end
        clean(marked).gsub(MARK) { formula(formulas[Regexp.last_match(1).to_i]) }
      end

      # What is nested deeper than a page can be is shown as it was written.
      def clean(marked)
        extensions = tables?(marked) ? %i[table strikethrough autolink] : %i[strikethrough autolink]
        rendered = CommonMarker.render_html(marked, %i[HARDBREAKS UNSAFE], extensions)
        Sanitize.fragment(rendered, CLEAN)
      rescue ArgumentError # of Nokogiri: the tree is too deep
        "<p>#{Rack::Utils.escape_html(marked)}</p>"
      end

      # Whether tables in there are of a size to be set: a row of one sign becomes as many cells as the table has columns.
      def tables?(text)
        rows = 0
        columns = 0
        text.each_line do |line|
          rows += 1
          columns = [columns, line.count("|")].max
        end
        rows * columns <= MOST_CELLS
      end

      # One line of text that may have formulas in it.
      # @return [String] safe HTML
      def line(text)
        return Rack::Utils.escape_html(text) unless text.include?("$")

        rest = 0
        html = +""
        text.to_enum(:scan, FORMULA).each do
          found = Regexp.last_match
          html << Rack::Utils.escape_html(text[rest...found.begin(0)]) << formula(found)
          rest = found.end(0)
        end
        html << Rack::Utils.escape_html(text[rest..])
      end

      def formula(found)
        block = found[:block]
        return Rack::Utils.escape_html(found[0]) unless Core::Formula.settable?(block || found[:line])

        source = Rack::Utils.escape_html((block || found[:line]).strip)
        %(<tex-formula data-source="#{source}"#{' data-block="true"' if block} hx-morph-skip-children>#{source}</tex-formula>)
      end
    end
  end
end
