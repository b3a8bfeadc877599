# frozen_string_literal: true

# What YARD has to be told about how we write (.yardopts).
module Roost
  # Constants of a Struct are set as `self::NAME =` in its block, and belong to it.
  module OwnConstants
    def process_constant(statement) = own?(statement) ? own(statement) : super

    def process_structclass(statement) = own?(statement) ? own(statement) : super

    private

    def own?(statement) = statement[0].source.start_with?("self::")

    def own(statement)
      register(YARD::CodeObjects::ConstantObject.new(namespace, statement[0].source.delete_prefix("self::"))) do |made|
        made.source = statement
        made.value = statement[1].source
      end
    end
  end

  # Rationals are numbers, too (1/2r).
  module Rationals
    def on_rational(token) = visit_ns_token(:int, token, true)
  end

  # Readers of what a constant lists are named by that list.
  module SplatAttributes
    def validated_attribute_names(params) = super(params.reject { |param| param.source.end_with?(".keys") })
  end

  # What a method takes and does not use is written with a dash in front, and documented without.
  module PlainNames
    def parameters = super&.map { |name, default| [name.sub(/\A(\*{0,2}&?)_/, '\1'), default] }
  end

  # Braces in our comments are Ruby's hashes, never links.
  module PlainBraces
    def resolve_links(text) = text
  end
end
YARD::Parser::Ruby::RipperParser.prepend(Roost::Rationals)
YARD::Handlers::Ruby::AttributeHandler.prepend(Roost::SplatAttributes)
YARD::Handlers::Ruby::ConstantHandler.prepend(Roost::OwnConstants)
YARD::CodeObjects::MethodObject.prepend(Roost::PlainNames)
YARD::Templates::Template.extra_includes << Roost::PlainBraces
