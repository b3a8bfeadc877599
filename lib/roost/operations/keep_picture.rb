# frozen_string_literal: true

require "marcel"
require "nokogiri"
require "vips"

module Roost
  module Operations
    # Takes in a picture that a teacher uploaded: sniffed by its content, at most 10 MB,
    # re-encoded (photographs and drawings through vips, SVG cleaned), kept by content.
    class KeepPicture
      MOST_BYTES = 10 * 1024 * 1024
      MOST_PIXELS = 60_000_000
      LARGEST_SIDE = 2000
      PHOTOGRAPHS = %w[image/png image/jpeg image/webp image/gif].freeze
      SVG_ELEMENTS = %w[svg g defs title desc path rect circle ellipse line polyline polygon text tspan
                        linearGradient radialGradient stop clipPath mask pattern use symbol].freeze
      SVG_FORBIDDEN = /\Aon|\A(?:style|src)\z/i

      # @param io [IO] of the upload
      # @param name [String] the file's name, only for the refusal
      # @param drawings [Boolean] whether SVG is taken
      # @return [Core::Reading] of a Core::Picture
      def call(account_id, io, name, drawings: true)
        bytes = io.read(MOST_BYTES + 1) || ""
        return refuse(name, "is larger than 10 MB. Make it smaller and try again.") if bytes.bytesize > MOST_BYTES

        type = Marcel::MimeType.for(StringIO.new(bytes))
        return refuse(name, "is not a photograph. Use PNG, JPEG, WebP or GIF.") unless drawings || PHOTOGRAPHS.include?(type)

        case type
        when "image/svg+xml", "application/xml" then keep_svg(account_id, bytes, name)
        when *PHOTOGRAPHS then keep_raster(account_id, bytes, name)
        else refuse(name, "is not a picture we can show. Use PNG, JPEG, WebP, GIF or SVG.")
        end
      rescue Errno::ENOSPC, Errno::EFBIG, Errno::EDQUOT
        refuse(name, "can't be stored: the disk is full. The slide is as it was; tell whoever runs this server.")
      end

      private

      def refuse(name, why) = Core::Reading.refused("“#{File.basename(name.to_s)[0, 60]}” #{why}")

      def keep_raster(account_id, bytes, name)
        whole = Vips::Image.new_from_buffer(bytes, "", fail_on: :truncated)
        if whole.width * whole.height > MOST_PIXELS
          return refuse(name,
                        "has too many pixels. Make it smaller and try again.")
        end

        picture = whole.thumbnail_image(LARGEST_SIDE, height: LARGEST_SIDE, size: :down)
        extension = picture.has_alpha? ? "png" : "jpg"
        encoded = picture.write_to_buffer(".#{extension}[strip#{",Q=85" if extension == "jpg"}]")
        Core::Reading.ok(Store::Media.new.keep_picture(encoded, extension: extension, width: picture.width,
                                                                height: picture.height, account_id: account_id))
      rescue Vips::Error
        refuse(name, "is damaged or not a picture. Export it again and retry.")
      end

      def keep_svg(account_id, bytes, name)
        document = Nokogiri::XML(bytes) { |config| config.strict.nonet }
        root = document.root
        return refuse(name, "is not an SVG drawing.") unless root&.name == "svg"

        size = svg_size(root)
        return refuse(name, "does not say how large it is. Export it with a view box.") unless size

        clean(root)
        encoded = root.to_xml
        Core::Reading.ok(Store::Media.new.keep_picture(encoded, extension: "svg", width: size[0], height: size[1],
                                                                account_id: account_id))
      rescue Nokogiri::XML::SyntaxError
        refuse(name, "is damaged or not a picture. Export it again and retry.")
      end

      # Takes out whatever could run, load or point elsewhere.
      def clean(root)
        root.traverse do |node|
          next node.remove if !node.element? && !node.text?
          next unless node.element?
          next node.remove unless SVG_ELEMENTS.include?(node.name)

          node.attribute_nodes.each { |attribute| attribute.remove if unsafe?(attribute) }
        end
      end

      def unsafe?(attribute)
        value = attribute.value
        return true if attribute.node_name.match?(SVG_FORBIDDEN)
        return !value.start_with?("#") if attribute.node_name == "href"

        value.match?(/javascript:|data:/i) || value.match?(/url\((?!\s*['"]?#)/i)
      end

      def svg_size(root)
        box = root["viewBox"].to_s.split(/[\s,]+/).map(&:to_f)
        width, height = box.length == 4 ? box.last(2) : [root["width"].to_f, root["height"].to_f]
        [width.round, height.round] if width >= 1 && height >= 1 && width < 100_000 && height < 100_000
      end
    end
  end
end
