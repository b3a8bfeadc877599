# frozen_string_literal: true

require "commonmarker"
require "sanitize"

module Roost
  module Web
    # A teacher's text: Markdown to HTML, cleaned. Headings start below the slide's own.
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

      # @return [String] safe HTML
      def self.html(text)
        html = CommonMarker.render_html(text, %i[HARDBREAKS UNSAFE], %i[table strikethrough autolink])
        Sanitize.fragment(html, CLEAN)
      end
    end
  end
end
